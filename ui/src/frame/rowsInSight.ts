import { computed, type ComputedRef, type Ref } from 'vue'
import { useScrolledPart, type Part } from '../compose/scrolledPart'

export interface RowsInSight<T> {
    rows: T[]
    /** Pixels of the rows before and after those. */
    above: number
    below: number
}

/** Shorter tables are drawn whole. */
const FEW = 150

/**
 * The rows of a long table that can be seen, so that ten thousand of them cost no more than a page. What scrolls around the
 * table carries `data-scrolls`.
 *
 * @param body element that the rows are in
 * @param all all rows
 * @param height pixels of a row
 */
export function useRowsInSight<T>(
    body: Ref<HTMLElement | null>,
    all: () => T[],
    height: (row: T) => number,
): ComputedRef<RowsInSight<T>> {
    const part = useScrolledPart(body)
    const tops = computed(() => {
        const tops = [0]
        for (const row of all()) {
            tops.push((tops.at(-1) ?? 0) + height(row))
        }
        return tops
    })
    return computed(() => {
        const rows = all()
        if (rows.length <= FEW) {
            return { rows, above: 0, below: 0 }
        }
        const { from, to } = sightOf(tops.value, part.value)
        const total = tops.value[rows.length] ?? 0
        return {
            rows: rows.slice(from, to),
            above: tops.value[from] ?? 0,
            below: total - (tops.value[to] ?? total),
        }
    })
}

/**
 * Which rows touch a part of the table.
 *
 * @param tops where each row begins, and at last where the table ends
 * @returns the first row, and the one behind the last
 */
export function sightOf(tops: number[], part: Part): { from: number; to: number } {
    const count = tops.length - 1
    const from = Math.min(lastAtOrBefore(tops, part.from), count)
    const to = Math.min(count, lastAtOrBefore(tops, part.to) + 1)
    return { from, to: Math.max(from, to) }
}

function lastAtOrBefore(tops: number[], pixel: number): number {
    let low = 0
    let high = tops.length
    while (low < high) {
        const middle = (low + high) >>> 1
        if ((tops[middle] ?? 0) <= pixel) {
            low = middle + 1
        } else {
            high = middle
        }
    }
    return Math.max(0, low - 1)
}
