import { describe, expect, test } from 'vitest'
import type { Register } from './ownBlock'
import { fileOf, followsFile, joinFile, layAgain, leaveFile } from './registerFile'

const register = (name: string, more: Partial<Register> = {}): Register => ({
    name,
    explains: '',
    fields: [],
    ...more,
})
const places = (registers: Register[]): unknown[] =>
    registers.map((each) => [each.name, each.offset, each.count, each.stride])

describe('a register file', () => {
    test('is made of registers that join the one above', () => {
        const all = [register('STATUS', { offset: 0 }), register('CONTROL', { count: 4 }), register('COUNT')]
        expect(joinFile(all, 2, 4)).toBe(true)
        expect(places(all)).toEqual([
            ['STATUS', 0, undefined, undefined],
            ['CONTROL', 4, 4, 8],
            ['COUNT', 8, 4, 8],
        ])
        expect(fileOf(all, 1)).toEqual({ first: 1, last: 2, stride: 8 })
        expect(fileOf(all, 0)).toBeUndefined()
        all.push(register('TIME', { width: 64 }))
        joinFile(all, 3, undefined)
        // A register of 64 bits begins where one can, in each repetition.
        expect(places(all).slice(1)).toEqual([
            ['CONTROL', 4, 4, 24],
            ['COUNT', 8, 4, 24],
            ['TIME', 16, 4, 24],
        ])
        for (let row = 0; row < 4; row++) {
            expect((16 + row * 24) % 8).toBe(0)
        }
    })

    test('twice, where nothing is said of the one above', () => {
        const all = [register('LOW'), register('HIGH')]
        joinFile(all, 1, 0x20)
        expect(places(all)).toEqual([
            ['LOW', 0x20, 2, 8],
            ['HIGH', 0x24, 2, 8],
        ])
    })

    test('is left from a register on', () => {
        const all = [register('A', { offset: 0, count: 3 }), register('B'), register('C'), register('D')]
        joinFile(all, 1, 0)
        joinFile(all, 2, 0)
        joinFile(all, 3, 0)
        expect(fileOf(all, 3)).toEqual({ first: 0, last: 3, stride: 16 })
        leaveFile(all, 2)
        expect(places(all)).toEqual([
            ['A', 0, 3, 8],
            ['B', 4, 3, 8],
            ['C', undefined, undefined, undefined],
            ['D', undefined, undefined, undefined],
        ])
        leaveFile(all, 1)
        expect(places(all).slice(0, 2)).toEqual([
            ['A', 0, 3, undefined],
            ['B', undefined, undefined, undefined],
        ])
    })

    test('has one count and fits again after a change', () => {
        const all = [register('A', { offset: 8, count: 2 }), register('B')]
        joinFile(all, 1, 8)
        const file = fileOf(all, 0)
        const [first, second] = all
        if (first && second) {
            first.count = 'CHANNELS'
            layAgain(all, 0, file)
            expect(places(all)).toEqual([
                ['A', 8, 'CHANNELS', 8],
                ['B', 12, 'CHANNELS', 8],
            ])
            const before = fileOf(all, 1)
            second.width = 64
            layAgain(all, 1, before)
            expect(places(all)).toEqual([
                ['A', 8, 'CHANNELS', 16],
                ['B', 16, 'CHANNELS', 16],
            ])
        }
    })

    test('is no file where rows lie behind each other, or offsets are formulas', () => {
        const rows = [register('A', { offset: 0, count: 4 }), register('B', { offset: 16, count: 4 })]
        expect(followsFile(rows, 1)).toBe(false)
        const formulas = [register('A', { offset: 'BASE', count: 4 }), register('B')]
        expect(joinFile(formulas, 1, 0)).toBe(false)
        expect(formulas[1]?.stride).toBeUndefined()
    })
})
