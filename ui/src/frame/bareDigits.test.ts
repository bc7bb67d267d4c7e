import { describe, expect, it } from 'vitest'
import { bareDigits } from './bareDigits'

describe('digits without a prefix', () => {
    it.each([
        ['10000000', '0x1000_0000', '0x0098_9680'],
        ['4096', '0x0000_4096', '0x0000_1000'],
        ['1000_0000_0', '0x1_0000_0000', '0x05F5_E100'],
    ])('%s could be %s or %s', (typed, hexadecimal, decimal) => {
        expect(bareDigits(typed)).toContain(`write ${hexadecimal}.`)
        expect(bareDigits(typed)).toContain(`decimal, ${decimal}.`)
    })

    it.each(['0x1000_0000', '64K', '256 MiB + 36 KiB', '100', '', '1000F000', "32'h1000", '4096 B'])(
        '%s says what it is',
        (typed) => expect(bareDigits(typed)).toBeUndefined(),
    )
})
