import { expect, test } from 'vitest'
import { sizeRows } from './blockSize'

test('figures stand beside those of the definition, and what is far off is marked', () => {
    const rows = sizeRows({
        made: { lookupTables: 195, flipFlops: 85, multipliers: 1 },
        said: { lookupTables: 60, flipFlops: 90, multipliers: 0 },
    })
    expect(rows.map((row) => [row.what, row.made, row.said])).toEqual([
        ['lookup tables', 195, 60],
        ['flip-flops', 85, 90],
        ['multipliers', 1, 0],
    ])
    expect(rows.map((row) => row.isFar)).toEqual([true, false, false])
})

test('of large blocks a fifth counts, of small ones a few', () => {
    const far = (made: number, said: number): boolean | undefined =>
        sizeRows({
            made: { lookupTables: made, flipFlops: 0, multipliers: 0 },
            said: { lookupTables: said, flipFlops: 0, multipliers: 0 },
        })[0]?.isFar
    expect(far(1000, 810)).toBe(false)
    expect(far(1000, 790)).toBe(true)
    expect(far(10, 30)).toBe(false)
    expect(far(10, 31)).toBe(true)
})

test('what is put into the definition counts at once, and formulas as they were', () => {
    const made = { lookupTables: 195, flipFlops: 85, multipliers: 1 }
    const said = { lookupTables: 60, flipFlops: 90, multipliers: 0 }
    expect(sizeRows({ made, said }, made).map((row) => row.said)).toEqual([195, 85, 1])
    const formulas = { lookupTables: '20 + WIDTH', flipFlops: 85, multipliers: 1 }
    expect(sizeRows({ made, said }, formulas).map((row) => row.said)).toEqual([60, 85, 1])
})
