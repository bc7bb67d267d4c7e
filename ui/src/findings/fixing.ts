import { ref, type Ref } from 'vue'
import type { ConsequenceView, Edit } from '../api/client'
import { tellProblem } from '../frame/notices'
import type { PlatformContext } from '../frame/platform'
import { consequencesOf } from './consequences'

export interface AskedFix {
    label: string
    edit: Edit
    revision: number
    consequences: ConsequenceView[]
}

/** Fixes that are applied at once when they make nothing worse, and asked about when they do. */
export function useFixing(context: PlatformContext): {
    asked: Ref<AskedFix | undefined>
    begin: (label: string, edit: Edit) => Promise<void>
    confirm: () => Promise<void>
} {
    const asked = ref<AskedFix>()

    async function begin(label: string, edit: Edit): Promise<void> {
        const revision = context.platform.value?.revision
        if (revision === undefined || context.refuses()) {
            return
        }
        try {
            const consequences = await consequencesOf(context, edit)
            if (consequences.length) {
                asked.value = { label, edit, revision, consequences }
            } else {
                await context.edit(edit, revision)
            }
        } catch (problem) {
            tellProblem(problem)
        }
    }

    async function confirm(): Promise<void> {
        const fix = asked.value
        asked.value = undefined
        if (fix) {
            await context.edit(fix.edit, fix.revision)
        }
    }

    return { asked, begin, confirm }
}
