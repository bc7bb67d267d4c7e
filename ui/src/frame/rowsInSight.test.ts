import { describe, expect, it } from 'vitest'
import { sightOf } from './rowsInSight'

describe('rows in sight', () => {
    /** Rows of two heights, as the rulers have them. */
    const heights = Array.from({ length: 500 }, (_, row) => (row % 3 === 0 ? 36 : 48))
    const tops = heights.reduce<number[]>((all, height) => [...all, (all.at(-1) ?? 0) + height], [0])
    const end = tops.at(-1) ?? 0

    it('are all that touch the part, and none beside it', () => {
        for (let from = -500; from < end + 500; from += 97) {
            const part = { from, to: from + 1200 }
            const sight = sightOf(tops, part)
            const touching = heights
                .map((_, row) => row)
                .filter((row) => (tops[row + 1] ?? 0) > part.from && (tops[row] ?? 0) <= part.to)
            if (touching.length > 0) {
                expect([sight.from, sight.to - 1]).toEqual([touching[0], touching.at(-1)])
            } else {
                expect(sight.to - sight.from).toBeLessThanOrEqual(1)
            }
        }
    })

    it('are none of an empty table', () => {
        expect(sightOf([0], { from: 0, to: 1000 })).toEqual({ from: 0, to: 0 })
    })
})
