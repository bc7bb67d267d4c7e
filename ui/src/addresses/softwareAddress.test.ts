import { describe, expect, it } from 'vitest'
import { addressNumber, onBus } from './softwareAddress'

describe('a typed address of software', () => {
    it('goes to the bus behind a bridge as a sum, and to others as it is', () => {
        const behind = { base: '0x0000_2000', software: { base: '0x1000_2000' } }
        expect(onBus(behind, '0x1000_3000')).toBe('0x1000_3000 - 0x1000_2000 + 0x0000_2000')
        expect(onBus({ base: '0x0000_2000' }, '0x3000')).toBe('0x3000')
        expect(onBus(undefined, '256 MiB')).toBe('256 MiB')
    })

    it('is compared as a number of 64 bits', () => {
        expect(addressNumber('0xFFFF_FFFF_FFFF_FFFF')).toBe(2n ** 64n - 1n)
        expect(addressNumber(null)).toBeUndefined()
    })
})
