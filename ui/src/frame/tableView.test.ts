import { describe, expect, it } from 'vitest'
import { arrangedRows, nextOrder, type Order } from './tableView'

interface Line {
    port: string
    pin?: string
    base?: bigint
}
const LINES: Line[] = [
    { port: 'records.row[10]', pin: 'K11', base: 0x1000_0000n },
    { port: 'records.row[9]', base: 0xffff_ffff_0000_0000n },
    { port: 'console.tx', pin: 'A3', base: 4n },
    { port: 'records.row[2]', pin: 'K9' },
]
const shown = (find: string, order: Order): string[] =>
    arrangedRows(LINES, find, order, (line) => `${line.port} ${line.pin ?? ''}`, {
        line: (line) => line.port,
        pin: (line) => line.pin,
        base: (line) => line.base,
    }).map((line) => line.port)

describe('rows of a table', () => {
    it('stay as they come until they are sorted', () => {
        expect(shown('', { descends: false })).toEqual(LINES.map((line) => line.port))
    })

    it('are those with all words, wherever they are', () => {
        expect(shown('K row', { descends: false })).toEqual(['records.row[10]', 'records.row[2]'])
        expect(shown('k11 records', { descends: false })).toEqual(['records.row[10]'])
        expect(shown('nothing', { descends: false })).toEqual([])
    })

    it('are sorted with numbers as numbers, those without a value last', () => {
        expect(shown('', { by: 'line', descends: false })).toEqual([
            'console.tx',
            'records.row[2]',
            'records.row[9]',
            'records.row[10]',
        ])
        expect(shown('', { by: 'pin', descends: true })).toEqual([
            'records.row[10]',
            'records.row[2]',
            'console.tx',
            'records.row[9]',
        ])
        expect(shown('', { by: 'base', descends: false })[1]).toBe('records.row[10]')
        expect(shown('', { by: 'base', descends: true })[0]).toBe('records.row[9]')
    })

    it('come back to their own order with the third press', () => {
        const first = nextOrder({ descends: false }, 'pin')
        const second = nextOrder(first, 'pin')
        expect([first, second, nextOrder(second, 'pin')]).toEqual([
            { by: 'pin', descends: false },
            { by: 'pin', descends: true },
            { descends: false },
        ])
        expect(nextOrder(second, 'line')).toEqual({ by: 'line', descends: false })
    })
})
