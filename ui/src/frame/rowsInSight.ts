import { computed, type ComputedRef, type Ref } from 'vue'
import { useScrolledPart } from '../compose/scrolledPart'

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
        const from = Math.max(0, lastAtOrBefore(tops.value, part.value.from))
        const to = Math.min(rows.length, lastAtOrBefore(tops.value, part.value.to) + 1)
        const total = tops.value[rows.length] ?? 0
        return {
            rows: rows.slice(from, to),
            above: tops.value[from] ?? 0,
            below: total - (tops.value[to] ?? total),
        }
    })
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
