import { describe, expect, it } from 'vitest'
import { clockName, listedFrequencies, typedHertz, typedPpm } from './typedFrequency'

describe('a typed frequency', () => {
    it.each([
        ['12.288', 12_288_000],
        ['12.288 MHz', 12_288_000],
        ['12.288m', 12_288_000],
        ['32768 Hz', 32_768],
        ['50k', 50_000],
        ['1_000 kHz', 1_000_000],
        ['.5 GHz', 500_000_000],
        [' 100 ', 100_000_000],
    ])('%s is %d Hz', (text, hertz) => expect(typedHertz(text)).toBe(hertz))

    it.each(['', '0', '-1', '1.2.3', '100 kBd', 'MHz', '1e6', '99999999 GHz', '5 constructor'])(
        '%s is none',
        (text) => expect(typedHertz(text)).toBeUndefined(),
    )
})

describe('a typed tolerance', () => {
    it.each([
        ['100', 100],
        ['100 ppm', 100],
        ['0.5 %', 5000],
        ['500ppb', 0.5],
        ['0', 0],
    ])('%s is %d ppm', (text, ppm) => expect(typedPpm(text)).toBe(ppm))

    it.each(['', 'ppm', '1 MHz'])('%s is none', (text) => expect(typedPpm(text)).toBeUndefined())
})

describe('several frequencies in one field', () => {
    it.each([
        ['100, 25, 12.5', ['100', '25', '12.5']],
        ['100;25 , 12.5 MHz', ['100 MHz', '25 MHz', '12.5 MHz']],
        ['32768 Hz, 50k,', ['32768 Hz', '50k']],
        ['12.288 MHz', ['12.288 MHz']],
        [' , ', []],
    ])('%s', (text, each) => expect(listedFrequencies(text)).toEqual(each))

    it('have names that are free', () => {
        const taken = new Set<string>()
        const names = [12_288_000, 12_288_000, 32_768, 999, 100_000_000].map((hertz) => {
            const name = clockName(hertz, taken)
            taken.add(name)
            return name
        })
        expect(names).toEqual([
            'clock_12_288_mhz',
            'clock_12_288_mhz_2',
            'clock_32_768_khz',
            'clock_999_hz',
            'clock_100_mhz',
        ])
    })
})
