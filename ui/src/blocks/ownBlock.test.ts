import { describe, expect, it } from 'vitest'
import {
    accessOf,
    ACCESSES,
    bitsText,
    documentText,
    formula,
    newBlock,
    setAccess,
    setBits,
    type Field,
} from './ownBlock'

const field = (): Field => ({ name: 'F', software: 'read-write', explains: '' })

describe('bits of a field', () => {
    it.each([
        ['7:0', 0, 8],
        ['0:7', 0, 8],
        ['[15:8]', 8, 8],
        ['3', 3, undefined],
        [' 31 : 0 ', 0, 32],
        ['+4', undefined, 4],
        ['0+WIDTH', 0, 'WIDTH'],
        ['BASE+2', 'BASE', 2],
        ['', undefined, undefined],
    ])('%s', (text, low, width) => {
        const each = field()
        expect(setBits(each, text)).toBe(true)
        expect(each.lowBit).toBe(low)
        expect(each.width).toBe(width)
    })

    it.each(['a:b', '7;0', '1:2:3', 'x'])('%s is refused and changes nothing', (text) => {
        const each = { ...field(), lowBit: 4, width: 2 }
        expect(setBits(each, text)).toBe(false)
        expect(each).toMatchObject({ lowBit: 4, width: 2 })
    })

    it('are shown as they were written', () => {
        for (const text of ['7:0', '3', '+4', '0+WIDTH', '']) {
            const each = field()
            setBits(each, text)
            expect(bitsText(each)).toBe(text)
        }
    })
})

describe('numbers', () => {
    it.each([
        ['16', 16],
        ['0x10', 16],
        ['0x1000_0000', 0x10000000],
        ['', undefined],
        ['2 * WIDTH', '2 * WIDTH'],
        // More than a number can hold exactly goes on as text.
        ['18446744073709551615', '18446744073709551615'],
    ])('%s', (text, value) => expect(formula(text)).toBe(value))
})

describe('accesses', () => {
    it('each choice is found again', () => {
        for (const { word } of ACCESSES) {
            const each = field()
            setAccess(each, word)
            expect(accessOf(each)).toBe(word)
        }
    })

    it('another choice leaves nothing of the one before', () => {
        const each = field()
        setAccess(each, 'ones clear')
        setAccess(each, 'reading takes')
        expect(each).toEqual({ name: 'F', software: 'read-only', onRead: 'take', explains: '' })
    })
})

describe('a new block', () => {
    it('is another one each time, with lines that show its field', () => {
        const one = newBlock()
        one.definition.title = 'Changed'
        expect(newBlock().definition.title).toBe('New block')
        expect(one.definition.provides?.[0]?.lines?.output).toBe('LINES.LEVEL')
    })
})

describe('what is sent', () => {
    it('does not name files that were taken out', () => {
        const block = newBlock()
        block.definition.hardware = { module: 'bell', files: ['bell.v'] }
        block.definition.software = { compatible: ['bellworks,bell'], driver: 'bell.h' }
        block.hardware = [{ name: 'bell.v', lines: [] }]
        block.drivers = [{ name: 'bell.h', lines: [] }]
        expect(documentText(block)).toContain('"module":"bell"')
        expect(documentText(block)).toContain('"driver":"bell.h"')
        block.hardware = []
        block.drivers = [{ name: 'chime.h', lines: [] }]
        expect(documentText(block)).not.toContain('"module"')
        expect(documentText(block)).not.toContain('"driver":')
        expect(documentText(block)).toContain('bellworks,bell')
        expect(block.definition.hardware.module).toBe('bell')
    })
})
