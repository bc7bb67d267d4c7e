/** A board document, as its schema describes it. */
export interface Board {
    format: string
    identity: string
    title: string
    summary?: string
    device: string
    clocks?: BoardClock[]
    resets?: BoardReset[]
    parts?: BoardPart[]
    /** Supply of each bank that is not the usual one of the device. */
    voltages?: Record<string, string>
}

export interface BoardClock {
    name: string
    title: string
    frequencyHz: number
    pin: string
    standard: string
}

export interface BoardReset {
    name: string
    title: string
    activeLow: boolean
    pin: string
    standard: string
}

export interface BoardSignal {
    name: string
    direction: string
    pins: string[]
    standard: string
    activeLow?: boolean
}

export interface BoardDriver {
    type: string
    outward: string
    parameters?: Record<string, string>
}

export interface BoardPart {
    name: string
    kind: string
    title: string
    summary?: string
    signals: BoardSignal[]
    drivers?: BoardDriver[]
}

/** Every pin that the board uses, and by what. */
export function pinsOf(board: Board): Map<string, string> {
    const pins = new Map<string, string>()
    board.clocks?.forEach((clock) => pins.set(clock.pin, clock.name))
    board.resets?.forEach((reset) => pins.set(reset.pin, reset.name))
    board.parts?.forEach((part) => {
        part.signals.forEach((signal) => {
            signal.pins.forEach((pin) => pins.set(pin, `${part.name}.${signal.name}`))
        })
    })
    return pins
}

/** Pins as people write them: with blanks or commas between, and `C1-C4` for a row. */
export function readPins(text: string): string[] {
    return text
        .split(/[\s,]+/)
        .filter(Boolean)
        .flatMap((word) => {
            const row = /^([A-Za-z]+)(\d+)-\1?(\d+)$/.exec(word)
            if (!row) {
                return [word.toUpperCase()]
            }
            const [, letters = '', first = '', last = ''] = row
            const count = Math.min(Math.abs(Number(last) - Number(first)) + 1, 256)
            const step = Number(last) >= Number(first) ? 1 : -1
            return Array.from(
                { length: count },
                (_, at) => `${letters.toUpperCase()}${String(Number(first) + at * step)}`,
            )
        })
}

/** Parameters as people write them: `WIDTH=8, DIRECTION=out`. */
export function readParameters(text: string): Record<string, string> {
    return Object.fromEntries(
        text
            .split(',')
            .map((pair) => pair.trim())
            .filter(Boolean)
            .map((pair) => {
                const at = pair.indexOf('=')
                return at < 0 ? [pair, ''] : [pair.slice(0, at).trim(), pair.slice(at + 1).trim()]
            }),
    )
}

export function writeParameters(parameters: Record<string, string> | undefined): string {
    return Object.entries(parameters ?? {})
        .map(([name, value]) => `${name}=${value}`)
        .join(', ')
}
