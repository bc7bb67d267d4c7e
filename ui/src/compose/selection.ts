import {
    computed,
    inject,
    nextTick,
    provide,
    ref,
    watch,
    type ComputedRef,
    type InjectionKey,
    type Ref,
} from 'vue'
import { client, type Edit } from '../api/client'
import { allConsequencesOf } from '../findings/consequences'
import { open } from '../frame/actions'
import { tell, tellProblem } from '../frame/notices'
import type { PlatformContext } from '../frame/platform'

export interface Removal {
    names: string[]
    edit: Edit
    /** Clock domains that the removed blocks make, and where what is in them goes; empty for nowhere. */
    domains: { name: string; into: string }[]
    consequences: { grade: string; subject: string; what: string }[]
}

export interface Selection {
    /** Names of all selected blocks. */
    names: ComputedRef<string[]>
    isSelected: (block: string) => boolean
    /** Selects a block alone, or adds it to the others and takes it out again. */
    click: (block: string, event: MouseEvent) => void
    /** Removes what is selected; asks first when something depends on it. */
    remove: () => Promise<void>
    /** The removal that is asked about. */
    removal: Ref<Removal | undefined>
    confirmRemoval: () => void
    keep: () => void
    copy: () => Promise<void>
    duplicate: () => Promise<void>
    /** Copies all blocks of a group into a new group of a free name, through the wiring plan. */
    duplicateGroup: (group: string) => Promise<void>
    paste: (text: string) => void
    /** Selects all blocks. */
    all: () => Promise<void>
}

const KEY: InjectionKey<Selection> = Symbol('selection')

export function useSelection(): Selection {
    const selection = inject(KEY)
    if (!selection) {
        throw new Error('no selection is provided here')
    }
    return selection
}

/** Several blocks at once: one is shown in the inspector, the others go along. */
export function provideSelection(context: PlatformContext): Selection {
    const more = ref<string[]>([])
    const one = computed(() => {
        const name = context.selected.value?.split('.')[0]
        return context.platform.value?.blocks.some((block) => block.name === name) ? name : undefined
    })
    const names = computed(() => (one.value ? [one.value, ...more.value] : []))

    watch(context.selected, () => (more.value = []))

    function click(block: string, event: MouseEvent): void {
        const adds = event.ctrlKey || event.metaKey || event.shiftKey
        if (!adds || !one.value || block === one.value) {
            context.selected.value = block
        } else if (more.value.includes(block)) {
            more.value = more.value.filter((each) => each !== block)
        } else {
            more.value = [...more.value, block]
        }
    }

    const removal = ref<Removal>()

    async function remove(): Promise<void> {
        const edits: Edit[] = names.value.map((block) => ({ edit: 'remove-block', block }))
        const first = edits[0]
        if (!first || context.refuses()) {
            return
        }
        const domains = (context.platform.value?.domains ?? [])
            .filter((domain) => names.value.includes(domain.clock.split('.')[0] ?? ''))
            .filter((domain) => domain.clock.includes('.'))
            .map((domain) => ({ name: domain.name, into: '' }))
        const edit =
            edits.length === 1
                ? first
                : { edit: 'several', title: `remove ${String(edits.length)} blocks`, edits }
        const asked = { names: names.value, edit, domains }
        try {
            const consequences = await allConsequencesOf(context, edit)
            removal.value = { ...asked, consequences }
            if (consequences.length === 0 && domains.length === 0) {
                confirmRemoval()
            }
        } catch (problem) {
            tellProblem(problem)
        }
    }

    function confirmRemoval(): void {
        if (removal.value) {
            const { edit, domains } = removal.value
            const moves: Edit[] = domains
                .filter((domain) => domain.into)
                .map((domain) => ({ edit: 'remove-domain', domain: domain.name, into: domain.into }))
            void context.edit(
                moves.length
                    ? { edit: 'several', title: `remove ${names.value.join(', ')}`, edits: [...moves, edit] }
                    : edit,
            )
            removal.value = undefined
            context.selected.value = undefined
        }
    }

    async function text(blocks = names.value): Promise<string | undefined> {
        try {
            const { data, error } = await client.GET('/api/platforms/{id}/blocks', {
                params: { path: { id: context.id }, query: { name: blocks } },
                parseAs: 'text',
            })
            if (error) {
                throw new Error('The blocks could not be read.')
            }
            return data
        } catch (problem) {
            tellProblem(problem)
            return undefined
        }
    }

    async function copy(): Promise<void> {
        const blocks = await text()
        if (blocks) {
            await navigator.clipboard.writeText(blocks)
            tell(
                'done',
                'Copied',
                `${names.value.join(', ')}; paste with Ctrl V, here or in another platform`,
            )
        }
    }

    function paste(blocks: string, duplicates = false): void {
        open.duplicates = duplicates
        open.paste = blocks
        open.wiring = true
    }

    async function duplicate(): Promise<void> {
        const blocks = await text()
        if (blocks) {
            paste(blocks, true)
        }
    }

    async function duplicateGroup(group: string): Promise<void> {
        const members = context.platform.value?.groups.find((each) => each.name === group)?.blocks
        const blocks = members && (await text(members))
        if (blocks) {
            paste(blocks, true)
        }
    }

    async function all(): Promise<void> {
        const [first, ...others] = (context.platform.value?.blocks ?? []).map((block) => block.name)
        context.selected.value = first
        // Selecting one ends the choice of several.
        await nextTick()
        more.value = others
    }

    const selection: Selection = {
        names,
        isSelected: (block) => names.value.includes(block),
        click,
        remove,
        removal,
        confirmRemoval,
        keep: () => (removal.value = undefined),
        copy,
        duplicate,
        duplicateGroup,
        paste,
        all,
    }
    provide(KEY, selection)
    return selection
}
