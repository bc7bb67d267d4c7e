import { shallowRef, watch, type ShallowRef } from 'vue'
import { answer, client, type ConsequenceView, type Edit, type EditRequest } from '../api/client'
import type { PlatformContext } from '../frame/platform'

/** Findings that there would be after an edit and are not there now; notes are left out. */
export async function consequencesOf(context: PlatformContext, edit: Edit): Promise<ConsequenceView[]> {
    return (await allConsequencesOf(context, edit)).filter((each) => each.grade !== 'note')
}

/** The same with notes. */
export async function allConsequencesOf(context: PlatformContext, edit: Edit): Promise<ConsequenceView[]> {
    const revision = context.platform.value?.revision
    return answer(
        client.POST('/api/platforms/{id}/consequences', {
            params: { path: { id: context.id } },
            body: {
                edit: edit as unknown as EditRequest['edit'],
                ...(revision === undefined ? {} : { revision }),
            },
        }),
    )
}

/**
 * The same for an edit that changes while it is looked at. Undefined until the first answer is there: what confirms the edit waits
 * for it, so that it does not move away under the pointer. Later answers replace the ones before.
 */
export function useConsequences(
    context: PlatformContext,
    edit: () => Edit | undefined,
): ShallowRef<ConsequenceView[] | undefined> {
    const found = shallowRef<ConsequenceView[]>()
    watch(
        edit,
        async (asked) => {
            if (!asked) {
                found.value = undefined
                return
            }
            // Without an answer the findings themselves say it afterwards.
            const all = await consequencesOf(context, asked).catch(() => [])
            if (edit() === asked) {
                found.value = all
            }
        },
        { immediate: true },
    )
    return found
}
