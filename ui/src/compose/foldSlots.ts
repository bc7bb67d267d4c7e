import type { SlotView } from '../api/client'

/** A place on a rail; one that stands for the targets of a folded group says so. */
export interface FoldedSlot extends SlotView {
    group?: { name: string; count: number }
}

/** The slots of a rail with each folded group drawn once, where its first target is. */
export function foldSlots(slots: SlotView[], drawnAs: (block: string) => string): FoldedSlot[] {
    const drawn = new Map<string, FoldedSlot>()
    const folded: FoldedSlot[] = []
    for (const slot of slots) {
        const name = slot.target && drawnAs(slot.target.block)
        if (!name?.startsWith('group ')) {
            folded.push(slot)
            continue
        }
        const first = drawn.get(name)
        if (first?.group) {
            first.group.count++
        } else {
            const card: FoldedSlot = { ...slot, group: { name: name.slice(6), count: 1 } }
            drawn.set(name, card)
            folded.push(card)
        }
    }
    return folded
}
