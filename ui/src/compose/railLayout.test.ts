import { describe, expect, it } from 'vitest'
import type { SlotView } from '../api/client'
import { layOutRail } from './railLayout'
import { SIZES } from './zoom'

const gap = (base: string): SlotView => ({ base, last: base, size: '1 KiB' })
const card = (base: string): SlotView => ({
    ...gap(base),
    target: {
        block: base,
        busInterface: 'x',
        label: base,
        size: '1 KiB',
        memory: false,
        held: false,
        conflict: false,
        adapters: [],
    },
})

describe('layOutRail', () => {
    it('keeps address order, and nothing overlaps or leaves the picture', () => {
        for (const width of [150, 400, 640, 920, 1800]) {
            const slots = Array.from({ length: 40 }, (_, at) =>
                at % 3 === 1 ? gap(String(at)) : card(String(at)),
            )
            const layout = layOutRail(slots, width, SIZES.near)
            expect(layout.rows.flatMap((row) => row.items.map((item) => item.slot.base))).toEqual(
                slots.map((slot) => slot.base),
            )
            for (const row of layout.rows) {
                row.items.forEach((item, at) => {
                    const before = row.items[at - 1]
                    expect(item.x).toBeGreaterThanOrEqual(before ? before.x + before.width : 0)
                    expect(item.x + item.width).toBeLessThanOrEqual(Math.max(width, SIZES.near.card))
                })
            }
        }
    })

    it('goes on in a second row exactly when the first is full', () => {
        const { card: wide, gap: narrow, space } = SIZES.far
        const fits = 2 * wide + narrow + 2 * space
        const slots = [card('a'), gap('b'), card('c')]
        expect(layOutRail(slots, fits, SIZES.far).rows).toHaveLength(1)
        expect(layOutRail(slots, fits - 1, SIZES.far).rows).toHaveLength(2)
    })
})
