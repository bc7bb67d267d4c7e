import { computed, type ComputedRef } from 'vue'
import { useInitiatorSpace } from '../frame/initiatorSpace'
import type { PlatformContext } from '../frame/platform'

/** Where an initiator sees a target, and what a read costs it. */
export interface Seen {
    base: string
    last: string
    cycles: string
}

/** Cycles in words: one number, or from the fewest to the most where a clock is crossed. */
export function cyclesText(least: number, most: number): string {
    return least === most ? `${most}` : `${least}–${most}`
}

/**
 * What the selected initiator sees, by block.interface; undefined as long as none is selected.
 *
 * @param initiator the selected one, as block.interface
 */
export function useSeenBy(
    context: PlatformContext,
    initiator: () => string | undefined,
): ComputedRef<Map<string, Seen> | undefined> {
    const { data } = useInitiatorSpace(context, initiator)
    return computed(() => {
        const space = data.value
        if (!space || space.initiator !== initiator()) {
            return undefined
        }
        return new Map(
            space.seen.map((each) => [
                `${each.block}.${each.busInterface}`,
                { base: each.base, last: each.last, cycles: cyclesText(each.leastCycles, each.cycles) },
            ]),
        )
    })
}
