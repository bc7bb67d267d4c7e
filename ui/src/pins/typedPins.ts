import type { Edit, PinLineView } from '../api/client'

/** What typed pins come to: the edits that can be made, and the lines whose pin has to wait, with what it waits for. */
export interface TypedPins {
    edits: Edit[]
    waiting: Map<string, string>
}

const portOf = (line: PinLineView): string => `${line.block ?? ''}.${line.outward ?? ''}.${line.signal ?? ''}`
const interfaceOf = (line: PinLineView): string => `${line.block ?? ''}.${line.outward ?? ''}`

/**
 * Binds typed pins. A port gets its pins from its lowest line on, so a pin behind a line without one waits until that has one
 * too; the other ports of the interface keep theirs.
 *
 * @param typed pins by the port of their line, as records.row[3]
 */
export function typedPins(lines: PinLineView[], typed: Map<string, string>): TypedPins {
    const waiting = new Map<string, string>()
    const ports = new Map<string, PinLineView[]>()
    for (const line of lines) {
        if (line.byHand && line.signal) {
            ports.set(portOf(line), [...(ports.get(portOf(line)) ?? []), line])
        }
    }
    const chosen = new Map<string, { line: PinLineView; pins: Record<string, string[]>; changed: boolean }>()
    for (const each of ports.values()) {
        const port = [...each].sort((one, other) => one.line - other.line)
        const first = port[0] as PinLineView
        const into = chosen.get(interfaceOf(first)) ?? { line: first, pins: {}, changed: false }
        chosen.set(interfaceOf(first), into)
        const pins: string[] = []
        let gap: string | undefined
        for (const line of port) {
            const pin = typed.get(line.port) ?? line.pin ?? undefined
            if (!pin) {
                gap ??= line.port
            } else if (gap) {
                waiting.set(line.port, gap)
            } else {
                pins.push(pin)
                into.changed ||= pin !== line.pin
            }
        }
        into.pins[first.signal ?? ''] = pins
    }
    const edits = [...chosen.values()]
        .filter((each) => each.changed)
        .map((each): Edit => ({
            edit: 'bind-pins',
            block: each.line.block,
            outward: each.line.outward,
            pins: each.pins,
        }))
    return { edits, waiting }
}

/** The pins of a pasted list: names with blanks, commas, semicolons or line ends between them. */
export function listedPins(text: string): string[] {
    return text
        .toUpperCase()
        .split(/[\s,;]+/)
        .filter(Boolean)
}
