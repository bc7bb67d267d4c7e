import { describe, expect, it } from 'vitest'
import { readParameters, readPins, writeParameters } from './board'

describe('a board document', () => {
    it('reads pins with blanks, commas and rows, in either direction', () => {
        expect(readPins('a1, B2  c3')).toEqual(['A1', 'B2', 'C3'])
        expect(readPins('H1-H4')).toEqual(['H1', 'H2', 'H3', 'H4'])
        expect(readPins('H4-1')).toEqual(['H4', 'H3', 'H2', 'H1'])
        expect(readPins('H1-9999999')).toHaveLength(256)
        expect(readPins(' ')).toEqual([])
    })

    it('reads the parameters that it writes', () => {
        const parameters = { WIDTH: '8', DIRECTION: 'out' }
        expect(readParameters(writeParameters(parameters))).toEqual(parameters)
        expect(readParameters('A = 1 + 1,,B')).toEqual({ A: '1 + 1', B: '' })
    })
})
