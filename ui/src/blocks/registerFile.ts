import type { Register } from './ownBlock'

/**
 * Register files: registers that follow each other and repeat together. In the document each of them is a row with the same count,
 * and a stride from one to the next that the others fit into.
 */

const WORD = 4
const FEWEST_ROWS = 2

const bytes = (register: Register): number => (register.width ?? 32) / 8
const strideOf = (register: Register): number | undefined =>
    typeof register.stride === 'number' ? register.stride : undefined

/** The registers of a file, from the first to the last. */
export interface RegisterFile {
    first: number
    last: number
    /** Bytes from one repetition to the next. */
    stride: number
}

/** Whether a register repeats together with the one above it. */
export function followsFile(registers: Register[], at: number): boolean {
    const above = registers[at - 1]
    const own = registers[at]
    const stride = own && strideOf(own)
    return (
        above !== undefined &&
        own !== undefined &&
        stride !== undefined &&
        strideOf(above) === stride &&
        own.count !== undefined &&
        own.count === above.count &&
        typeof above.offset === 'number' &&
        typeof own.offset === 'number' &&
        own.offset > above.offset &&
        own.offset + bytes(own) <= start(registers, at - 1) + stride
    )
}

/** Offset at which the file of a register begins. */
function start(registers: Register[], at: number): number {
    let first = at
    while (first > 0 && followsFile(registers, first)) {
        first--
    }
    return Number(registers[first]?.offset ?? 0)
}

/** The file that a register is in; undefined where it repeats alone, or not at all. */
export function fileOf(registers: Register[], at: number): RegisterFile | undefined {
    let first = at
    while (first > 0 && followsFile(registers, first)) {
        first--
    }
    let last = at
    while (followsFile(registers, last + 1)) {
        last++
    }
    const stride = strideOf(registers[first] ?? { name: '', explains: '', fields: [] })
    return last > first && stride !== undefined ? { first, last, stride } : undefined
}

/** Puts registers one behind the other from an offset on, and lets them repeat together. */
function lay(
    registers: Register[],
    first: number,
    last: number,
    base: number,
    count: Register['count'],
): void {
    let next = base
    let widest = WORD
    const members = registers.slice(first, last + 1)
    for (const each of members) {
        const size = Math.max(WORD, bytes(each))
        widest = Math.max(widest, size)
        next = Math.ceil(next / size) * size
        each.offset = next
        next += size
    }
    const begin = Number(members[0]?.offset ?? base)
    const stride = Math.ceil((next - begin) / widest) * widest
    for (const each of members) {
        each.count = count
        each.stride = stride
    }
}

/**
 * Lets a register repeat together with the one above, as often as that one.
 *
 * @param offset where the first one of the file is, as it is assigned where nothing is written
 * @returns whether it can: not where offsets are formulas
 */
export function joinFile(registers: Register[], at: number, offset: number | undefined): boolean {
    const above = fileOf(registers, at - 1) ?? { first: at - 1, last: at - 1, stride: 0 }
    const head = registers[above.first]
    const base =
        typeof head?.offset === 'number' ? head.offset : head?.offset === undefined ? offset : undefined
    if (head === undefined || base === undefined) {
        return false
    }
    lay(registers, above.first, at, base, head.count ?? FEWEST_ROWS)
    return true
}

/** Lets a register stand for itself again, and those below it that were in the same file; the ones above go on. */
export function leaveFile(registers: Register[], at: number): void {
    const file = fileOf(registers, at)
    if (!file) {
        return
    }
    for (const each of registers.slice(at, file.last + 1)) {
        delete each.offset
        delete each.stride
        delete each.count
    }
    const base = Number(registers[file.first]?.offset ?? 0)
    if (at - 1 > file.first) {
        lay(registers, file.first, at - 1, base, registers[file.first]?.count)
    } else {
        Reflect.deleteProperty(registers[file.first] ?? {}, 'stride')
    }
}

/** After a change of a register's count or width: all of its file have it, and fit again. */
export function layAgain(registers: Register[], at: number, file: RegisterFile | undefined): void {
    if (file) {
        const base = Number(registers[file.first]?.offset ?? 0)
        lay(registers, file.first, file.last, base, registers[at]?.count ?? FEWEST_ROWS)
    }
}
