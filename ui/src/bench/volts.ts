/** A typed voltage, with or without its unit; undefined where it is none or beyond the full scale. */
export function enterableVolts(text: string, fullScale: number): number | undefined {
    const match = /^\s*([0-9]+(?:[.,][0-9]*)?|[.,][0-9]+)\s*(m?V)?\s*$/.exec(text)
    if (!match) {
        return undefined
    }
    const [, digits = '', unit] = match
    const volts = Number(digits.replace(',', '.')) / (unit === 'mV' ? 1000 : 1)
    return volts <= fullScale ? volts : undefined
}
