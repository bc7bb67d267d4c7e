import { describe, expect, it } from 'vitest'
import { enterableVolts } from './volts'

describe('voltages that are typed', () => {
    it('are numbers with or without a unit', () => {
        expect(enterableVolts('12.5', 16.5)).toBe(12.5)
        expect(enterableVolts(' 12,5 V ', 16.5)).toBe(12.5)
        expect(enterableVolts('850 mV', 3.3)).toBeCloseTo(0.85)
        expect(enterableVolts('.5', 3.3)).toBe(0.5)
        expect(enterableVolts('0', 3.3)).toBe(0)
    })

    it('lie within the full scale', () => {
        expect(enterableVolts('16.5', 16.5)).toBe(16.5)
        expect(enterableVolts('16.51', 16.5)).toBeUndefined()
        expect(enterableVolts('-1', 16.5)).toBeUndefined()
    })

    it('are nothing else', () => {
        for (const text of ['', 'V', '1e3', '1 A', '1.2.3', '0x10']) {
            expect(enterableVolts(text, 16.5)).toBeUndefined()
        }
    })
})
