import { computed, inject, provide, ref, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import type { PlatformContext } from '../frame/platform'
import { useTableView } from '../frame/tableView'
import { useFolds } from './folds'
import { netsOf } from './nets'
import { useSeenBy, type Seen } from './seenBy'

/**
 * What is lit, fades and folds in the picture. Each card looks at it for itself, so that a change draws only the cards
 * that it concerns, however many there are.
 */
export interface Picture {
    /** The signal net that is pointed at. */
    net: Ref<string | undefined>
    /** Blocks on that net. */
    lit: ComputedRef<Set<string> | undefined>
    /** What the selected initiator reaches, as block.interface; nothing fades without one. */
    world: ComputedRef<Set<string> | undefined>
    /** Where the selected initiator sees what it reaches, and what a read costs it, by block.interface. */
    seen: ComputedRef<Map<string, Seen> | undefined>
    /** Words that a block has to contain; the others fade. */
    filter: Ref<string>
    /** Blocks that the filter lets through; undefined without a filter. */
    matches: ComputedRef<Set<string> | undefined>
    isFolded: (group: string) => boolean
    toggleFold: (group: string) => void
    /** What a block is drawn as: itself, or `group name` when that group is folded. */
    drawnAs: (block: string) => string
}

const KEY: InjectionKey<Picture> = Symbol('picture')

export function usePicture(): Picture {
    const picture = inject(KEY)
    if (!picture) {
        throw new Error('no picture is provided here')
    }
    return picture
}

export function providePicture(context: PlatformContext): Picture {
    const net = ref<string>()
    const lit = computed(() => {
        const platform = context.platform.value
        const pointed = net.value
        return pointed === undefined || !platform
            ? undefined
            : new Set(
                  platform.blocks.filter((block) => netsOf(block).has(pointed)).map((block) => block.name),
              )
    })
    const initiator = computed(() => {
        const selected = context.selected.value
        return selected?.includes('.')
            ? context.platform.value?.buses
                  .flatMap((bus) => bus.initiators)
                  .find((each) => `${each.block}.${each.busInterface}` === selected)
            : undefined
    })
    const world = computed(() => initiator.value && new Set(initiator.value.reaches))
    // A bridge only passes on: it sees nothing of its own.
    const seen = useSeenBy(context, () =>
        initiator.value && !initiator.value.bridge ? context.selected.value : undefined,
    )
    const { find: filter, shown } = useTableView(
        () => context.platform.value?.blocks ?? [],
        (block) => `${block.name} ${block.title} ${block.kind}`,
        {},
    )
    const matches = computed(() =>
        filter.value.trim() ? new Set(shown.value.map((block) => block.name)) : undefined,
    )
    const folds = useFolds(context.id)
    const groupOf = computed(
        () => new Map(context.platform.value?.blocks.map((block) => [block.name, block.group])),
    )
    const picture = {
        net,
        lit,
        world,
        seen,
        filter,
        matches,
        isFolded: folds.isFolded,
        toggleFold: folds.toggle,
        drawnAs: (block: string) => {
            const group = groupOf.value.get(block)
            return group && folds.isFolded(group) ? `group ${group}` : block
        },
    }
    provide(KEY, picture)
    return picture
}
