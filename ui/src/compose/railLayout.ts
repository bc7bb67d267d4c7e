import type { FoldedSlot } from './foldSlots'

/** Where one target or gap hangs below its rail. */
export interface RailItem {
    slot: FoldedSlot
    x: number
    width: number
}

/** One line of a rail. A rail that is longer than the picture is wide goes on in the next line, as text does. */
export interface RailRow {
    y: number
    width: number
    items: RailItem[]
}

export interface RailLayout {
    rows: RailRow[]
    height: number
}

/** Widths of a target and of a gap, the space between two, and the height of a row, in pixels. */
export interface RailSizes {
    card: number
    gap: number
    space: number
    row: number
}

/**
 * Places the slots of a bus from left to right in the order given, which is that of their addresses.
 *
 * @param width room in pixels; at least one item goes into each row
 */
export function layOutRail(slots: FoldedSlot[], width: number, sizes: RailSizes): RailLayout {
    const rows: RailRow[] = [{ y: 0, width: 0, items: [] }]
    let x = 0
    for (const slot of slots) {
        const itemWidth = slot.target ? sizes.card : sizes.gap
        let row = rows[rows.length - 1] as RailRow
        if (row.items.length > 0 && x + itemWidth > width) {
            row = { y: rows.length * sizes.row, width: 0, items: [] }
            rows.push(row)
            x = 0
        }
        row.items.push({ slot, x, width: itemWidth })
        x += itemWidth + sizes.space
        row.width = x - sizes.space
    }
    return { rows, height: rows.length * sizes.row }
}
