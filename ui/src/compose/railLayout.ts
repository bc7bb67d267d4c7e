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
    height: number
    /** Height of the chips below the names, the same for all cards of a row. */
    chips: number
    items: RailItem[]
}

export interface RailLayout {
    rows: RailRow[]
    height: number
}

/** Widths of a target and of a gap, and the space between two, in pixels. */
export interface RailSizes {
    card: number
    gap: number
    space: number
    /** Height of a row of targets without chips, of each line of chips, and of a row of gaps alone. */
    row: number
    line: number
    gapRow: number
}

/**
 * Places the slots of a bus from left to right in the order given, which is that of their addresses.
 *
 * A row is as high as the card with most chips needs.
 *
 * @param width room in pixels; at least one item goes into each row
 * @param lines lines of chips of a slot
 */
export function layOutRail(
    slots: FoldedSlot[],
    width: number,
    sizes: RailSizes,
    lines: (slot: FoldedSlot) => number = () => 0,
): RailLayout {
    const rows: RailRow[] = []
    let x = 0
    let y = 0
    let row: RailRow | undefined
    const end = (): void => {
        if (row) {
            const chips = Math.max(0, ...row.items.map((item) => lines(item.slot)))
            row.chips = chips * sizes.line
            row.height = row.items.some((item) => item.slot.target) ? sizes.row + row.chips : sizes.gapRow
            y += row.height
        }
    }
    for (const slot of slots) {
        const itemWidth = slot.target ? sizes.card : sizes.gap
        if (!row || x + itemWidth > width) {
            end()
            row = { y, width: 0, height: 0, chips: 0, items: [] }
            rows.push(row)
            x = 0
        }
        row.items.push({ slot, x, width: itemWidth })
        x += itemWidth + sizes.space
        row.width = x - sizes.space
    }
    end()
    return { rows, height: y }
}
