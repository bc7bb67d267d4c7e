/** A block type of one's own, as its document has it. What is not edited here is carried along as it is. */
export interface OwnBlock {
    format: string
    definition: Definition
    hardware?: TextFile[]
    drivers?: TextFile[]
    /** Files that try the HDL in simulation; they are not handed off. */
    tests?: TextFile[]
}

export interface TextFile {
    name: string
    lines: string[]
}

/** A number, or an expression of the block's parameters. */
export type Formula = number | string

export interface Definition {
    format: string
    identity: string
    kind: string
    title: string
    summary: string
    description: string
    defaultName: string
    parameters?: Parameter[]
    clocks?: { name: string; minimumHz?: number; maximumHz?: number }[]
    resets?: { name: string; clock?: string }[]
    busInterfaces?: BusInterface[]
    streams?: { name: string; end: string; clock?: string }[]
    interrupts?: Interrupt[]
    outward?: Outward[]
    registers?: Register[]
    provides?: Record<string, Record<string, Formula>>[]
    hardware?: { module: string; files: string[]; parameters?: Record<string, Formula> }
    software?: { compatible?: string[]; driver?: string; node?: string }
    [key: string]: unknown
}

export interface Parameter {
    name: string
    title: string
    form: string
    initial: string
    minimum?: Formula
    maximum?: Formula
    explains: string
    macro?: string
}

export interface BusInterface {
    name: string
    role: string
    protocols: string[]
    /** Input that it belongs to; the first where it is missing. */
    clock?: string
    [key: string]: unknown
}

export interface Interrupt {
    name: string
    end: string
    line: string
    trigger: string
}

export interface Outward {
    name: string
    title: string
    partKinds?: string[]
    ports: { name: string; direction: string; width: Formula }[]
}

export interface Register {
    name: string
    offset?: Formula
    width?: number
    /** Whether both words of one of 64 bits are read and written at one time. */
    whole?: boolean
    count?: Formula
    explains: string
    fields: Field[]
    [key: string]: unknown
}

export interface Field {
    name: string
    lowBit?: Formula
    width?: Formula
    software: string
    onWrite?: string
    onRead?: string
    hardware?: string
    reset?: Formula
    interrupt?: { source: string; enable?: string }
    explains: string
    [key: string]: unknown
}

/**
 * The document without what the definition says of files that were taken out; of those that are there the server says what it
 * needs.
 */
export function documentText(block: OwnBlock): string {
    const definition = { ...block.definition }
    if (!block.hardware?.length) {
        delete definition.hardware
    }
    const software = definition.software
    if (software?.driver && !block.drivers?.some((each) => each.name === software.driver)) {
        definition.software = { ...software, driver: undefined }
    }
    return JSON.stringify({ ...block, definition })
}

/** Something to begin with: one register of four lines that leave the chip, on the plainest bus. */
export function newBlock(): OwnBlock {
    return {
        format: 'polymetron-own-block/1',
        definition: {
            format: 'polymetron-block-type/2',
            identity: 'own:blocks:new-block:1.0',
            kind: 'peripheral',
            title: 'New block',
            summary: 'What it is for, in a few words',
            description: 'What its users have to know.',
            defaultName: 'own',
            clocks: [{ name: 'clk', minimumHz: 1, maximumHz: 200000000 }],
            resets: [{ name: 'rst', clock: 'clk' }],
            busInterfaces: [
                {
                    name: 'registers',
                    role: 'target',
                    protocols: ['axi4-lite'],
                    dataWidth: 32,
                    size: 4096,
                    usage: 'registers',
                    executable: false,
                },
            ],
            outward: [
                {
                    name: 'lines',
                    title: 'lines',
                    partKinds: ['lamps', 'header'],
                    ports: [{ name: 'value', direction: '"out"', width: 4 }],
                },
            ],
            registers: [
                {
                    name: 'LINES',
                    explains: 'Levels of the lines.',
                    fields: [
                        {
                            name: 'LEVEL',
                            width: 4,
                            software: 'read-write',
                            explains: 'one bit for each line',
                        },
                    ],
                },
            ],
            provides: [
                { lines: { registers: 'registers', count: 4, direction: '"out"', output: 'LINES.LEVEL' } },
            ],
            resources: { lookupTables: 20, flipFlops: 20, multipliers: 0 },
            software: {},
        },
    }
}

/** Text of a cell as the document has it: nothing, a number, or an expression. */
export function formula(text: string): Formula | undefined {
    const plain = text.trim().replaceAll('_', '')
    if (plain === '') {
        return undefined
    }
    if (/^(0x[0-9a-f]+|[0-9]+)$/i.test(plain)) {
        const value = Number(plain)
        return Number.isSafeInteger(value) ? value : text.trim()
    }
    return text.trim()
}

/** The bits of a field as 7:0 or 3; expressions as low bit + width. */
export function bitsText(field: Field): string {
    const low = field.lowBit
    const width = field.width ?? 1
    if (low === undefined) {
        return width === 1 ? '' : `+${width}`
    }
    if (typeof low === 'number' && typeof width === 'number') {
        return width === 1 ? String(low) : `${low + width - 1}:${low}`
    }
    return `${low}+${width}`
}

/** Bits as they are typed: 7:0, 3, +4 for the next four, or an expression as in 0+WIDTH; false where they are none. */
export function setBits(field: Field, text: string): boolean {
    const plain = text.replaceAll(/\s/g, '')
    const range = /^\[?(\d{1,2})(?::(\d{1,2}))?\]?$/.exec(plain)
    const counted = /^([^+]*)\+(.+)$/.exec(plain)
    if (plain === '') {
        delete field.lowBit
        delete field.width
    } else if (range) {
        const one = Number(range[1])
        const other = range[2] === undefined ? one : Number(range[2])
        field.lowBit = Math.min(one, other)
        field.width = Math.abs(one - other) + 1
        if (field.width === 1) {
            delete field.width
        }
    } else if (counted) {
        const low = formula(counted[1] ?? '')
        if (low === undefined) {
            delete field.lowBit
        } else {
            field.lowBit = low
        }
        field.width = formula(counted[2] ?? '')
    } else {
        return false
    }
    return true
}

/** What software does with a field, as one choice. */
export const ACCESSES = [
    { word: 'read-write', software: 'read-write' },
    { word: 'read-only', software: 'read-only' },
    { word: 'write-only', software: 'write-only' },
    { word: 'ones clear', software: 'read-write', onWrite: 'clear-ones' },
    { word: 'ones set', software: 'read-write', onWrite: 'set-ones' },
    { word: 'pulse', software: 'write-only', onWrite: 'pulse' },
    { word: 'handed over', software: 'write-only', onWrite: 'hand-over' },
    { word: 'reading clears', software: 'read-only', onRead: 'clear' },
    { word: 'reading takes', software: 'read-only', onRead: 'take' },
] as const

export function accessOf(field: Field): string {
    const found = ACCESSES.find(
        (each) =>
            each.software === field.software &&
            ('onWrite' in each ? each.onWrite : undefined) === field.onWrite &&
            ('onRead' in each ? each.onRead : undefined) === field.onRead,
    )
    return found?.word ?? `${field.software}, ${field.onWrite ?? ''} ${field.onRead ?? ''}`
}

export function setAccess(field: Field, word: string): void {
    const chosen = ACCESSES.find((each) => each.word === word)
    if (!chosen) {
        return
    }
    field.software = chosen.software
    delete field.onWrite
    delete field.onRead
    if ('onWrite' in chosen) {
        field.onWrite = chosen.onWrite
    }
    if ('onRead' in chosen) {
        field.onRead = chosen.onRead
    }
}

export const HARDWARE = [
    { value: '', word: 'reads it' },
    { value: 'value', word: 'gives it' },
    { value: 'load', word: 'stores into it' },
    { value: 'set', word: 'sets bits' },
    { value: 'count', word: 'counts it up' },
] as const
