import { describe, expect, it } from 'vitest'
import type { PinLineView } from '../api/client'
import { listedPins, typedPins } from './typedPins'

const line = (signal: string, at: number, pin?: string, block = 'spare'): PinLineView =>
    ({
        port: `${block}.${signal}[${String(at)}]`,
        block,
        outward: 'lines',
        signal,
        line: at,
        byHand: true,
        pin,
    }) as PinLineView
const typed = (...each: [string, string][]): Map<string, string> => new Map(each)

describe('typed pins', () => {
    it('are bound from the lowest line on, and the rest of the interface keeps its pins', () => {
        const lines = [line('value', 1), line('value', 0), line('enable', 0, 'A1')]
        expect(typedPins(lines, typed(['spare.value[0]', 'D7'])).edits).toEqual([
            { edit: 'bind-pins', block: 'spare', outward: 'lines', pins: { value: ['D7'], enable: ['A1'] } },
        ])
    })

    it('wait for a line before them that has none', () => {
        const lines = [line('value', 0), line('value', 1), line('value', 2)]
        const { edits, waiting } = typedPins(lines, typed(['spare.value[2]', 'D8'], ['spare.value[0]', 'D6']))
        expect(edits[0]?.pins).toEqual({ value: ['D6'] })
        expect([...waiting]).toEqual([['spare.value[2]', 'spare.value[1]']])
        expect(typedPins(lines, typed(['spare.value[1]', 'D7'])).edits).toEqual([])
    })

    it('change nothing where they are what is there, and are one edit for each interface', () => {
        const lines = [line('value', 0, 'A1'), line('value', 0, undefined, 'other')]
        expect(typedPins(lines, typed(['spare.value[0]', 'A1'])).edits).toEqual([])
        const both = typedPins(lines, typed(['spare.value[0]', 'A2'], ['other.value[0]', 'A3']))
        expect(both.edits.map((edit) => edit.block)).toEqual(['spare', 'other'])
    })

    it('are read from a list with any signs between', () => {
        expect(listedPins(' d7, d8;\tE1\r\n\nf2 ')).toEqual(['D7', 'D8', 'E1', 'F2'])
    })
})
