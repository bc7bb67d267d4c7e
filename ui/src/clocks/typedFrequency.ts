const HERTZ: Record<string, number> = { '': 1e6, hz: 1, k: 1e3, khz: 1e3, m: 1e6, mhz: 1e6, g: 1e9, ghz: 1e9 }
const PPM: Record<string, number> = { '': 1, ppm: 1, ppb: 1e-3, '%': 1e4 }

/** A frequency as it is typed, in whole hertz: `12.288`, which is in MHz, `12.288 MHz`, `32768 Hz`, `50k`. */
export function typedHertz(text: string): number | undefined {
    const hertz = quantity(text, HERTZ)
    return hertz === undefined || hertz < 1 || hertz > Number.MAX_SAFE_INTEGER ? undefined : Math.round(hertz)
}

/** A tolerance as it is typed, in ppm: `100`, `100 ppm`, `0.5 %`. */
export function typedPpm(text: string): number | undefined {
    return quantity(text, PPM)
}

function quantity(text: string, units: Record<string, number>): number | undefined {
    const match = /^([\d_]+(?:\.\d*)?|\.\d+)\s*([a-z%]*)$/i.exec(text.trim())
    const unit = match?.[2]?.toLowerCase() ?? ''
    const factor = Object.hasOwn(units, unit) ? units[unit] : undefined
    const digits = match?.[1]?.replaceAll('_', '')
    return digits && factor !== undefined ? Number(digits) * factor : undefined
}

/**
 * Several frequencies in one field, with commas or semicolons between them: `100, 25, 12.5 MHz`. The unit of the last one
 * is that of those before it without a unit. One frequency is a list of one.
 */
export function listedFrequencies(text: string): string[] {
    const each = text
        .split(/[,;]/)
        .map((part) => part.trim())
        .filter(Boolean)
    const unit = /[a-z]+$/i.exec(each.at(-1) ?? '')?.[0]
    return each.map((part) => (unit && !/[a-z]$/i.test(part) ? `${part} ${unit}` : part))
}

/** A free name for a clock of this frequency: `clock_12_288_mhz`. */
export function clockName(hertz: number, taken: ReadonlySet<string>): string {
    const [value, unit] =
        hertz >= 1e6 ? [hertz / 1e6, 'mhz'] : hertz >= 1e3 ? [hertz / 1e3, 'khz'] : [hertz, 'hz']
    const name = `clock_${String(value).replace('.', '_')}_${unit}`
    let free = name
    for (let number = 2; taken.has(free); number++) {
        free = `${name}_${String(number)}`
    }
    return free
}
