import { flushPromises } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref } from 'vue'
import { useHands } from './hands'

const board = (switches: number) => [
    { part: 'switches', block: 'gain', width: 8, levels: switches, pulses: [] },
]

function hands(answer: () => Promise<boolean> = () => Promise.resolve(true)) {
    const levels = ref(board(0))
    const move = vi.fn(answer)
    const scope = effectScope()
    const used = scope.run(() => useHands(() => levels.value, move))
    if (!used) {
        throw new Error('no scope')
    }
    return { levels, move, ...used }
}

describe('hands', () => {
    it('flip line after line without waiting for the board', async () => {
        const { flip, isHigh, move } = hands()
        flip('switches', 0)
        flip('switches', 1)
        flip('switches', 0)
        await flushPromises()
        expect(move.mock.calls).toEqual([
            ['switches', 0, true],
            ['switches', 1, true],
            ['switches', 0, false],
        ])
        expect([isHigh('switches', 0), isHigh('switches', 1)]).toEqual([false, true])
    })

    it('let a button go after it was pressed, never before', async () => {
        const order: string[] = []
        let finish: () => void = () => undefined
        const { set } = hands(
            vi.fn(async () => {
                order.push('sent')
                await new Promise<void>((resolve) => (finish = resolve))
                return true
            }),
        )
        set('switches', 3, true)
        set('switches', 3, false)
        await flushPromises()
        expect(order).toHaveLength(1)
        finish()
        await flushPromises()
        expect(order).toHaveLength(2)
    })

    it('follow the board once it agrees, and what others do then', async () => {
        const { flip, isHigh, levels } = hands()
        flip('switches', 2)
        levels.value = board(0)
        await nextTick()
        expect(isHigh('switches', 2)).toBe(true)
        levels.value = board(4)
        await nextTick()
        levels.value = board(0)
        await nextTick()
        expect(isHigh('switches', 2)).toBe(false)
    })

    it('go back when the move was refused', async () => {
        const { flip, isHigh } = hands(() => Promise.resolve(false))
        flip('switches', 1)
        await flushPromises()
        expect(isHigh('switches', 1)).toBe(false)
    })

    it('hold a button until it is pressed again', async () => {
        const { press, release, move } = hands()
        press('ends', 1, true)
        release('ends', 1)
        press('ends', 4, false)
        release('ends', 4)
        press('ends', 1, true)
        release('ends', 1)
        await flushPromises()
        expect(move.mock.calls).toEqual([
            ['ends', 1, true],
            ['ends', 4, true],
            ['ends', 4, false],
            ['ends', 1, false],
        ])
    })

    it('let a held button go that is pressed without holding', async () => {
        const { press, release, move } = hands()
        press('ends', 2, true)
        release('ends', 2)
        press('ends', 2, false)
        release('ends', 2)
        await flushPromises()
        expect(move.mock.calls).toEqual([
            ['ends', 2, true],
            ['ends', 2, false],
        ])
    })
})
