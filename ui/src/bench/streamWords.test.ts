import { describe, expect, it } from 'vitest'
import { rowsOf, sampleOf } from './streamWords'

describe('words of a stream', () => {
    it('are signed samples of their bits', () => {
        expect(sampleOf(0xffffff, 24)).toBe(-1)
        expect(sampleOf(0x7fffff, 24)).toBe(8388607)
        expect(sampleOf(0x12800000, 24)).toBe(-8388608)
        expect(sampleOf(-1, 32)).toBe(-1)
        expect(sampleOf(-1, 0)).toBe(4294967295)
    })

    it('are sorted by their packets, whole ones only', () => {
        const rows = rowsOf(
            [9, 1, 2, 3, 4, 5, 6, 7],
            [true, false, false, true, false, false, true, false],
            16,
            10,
        )
        expect(rows.channels).toEqual([
            [1, 4],
            [2, 5],
            [3, 6],
        ])
        expect(rows.x).toEqual([0, 1])
    })

    it('are one channel without packets, the newest ones', () => {
        const rows = rowsOf([1, 2, 3, 4], [false, false, false, false], 8, 2)
        expect(rows.channels).toEqual([[3, 4]])
        expect(rows.x).toEqual([2, 3])
    })

    it('are none at the beginning', () => {
        expect(rowsOf([], [], 24, 10)).toEqual({ x: [], channels: [], isPackets: false })
    })
})
