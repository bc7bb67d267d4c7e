import type { Register } from './ownBlock'

const WORD = 32
const WIDE = 64
const WHOLE = `${WIDE} whole`

/** What a register may have: bits, and whether its two words are read and written at one time. */
export const WIDTHS: readonly string[] = ['8', '16', String(WORD), String(WIDE), WHOLE]

export const widthOf = (register: Register): string =>
    register.whole === true ? WHOLE : String(register.width ?? WORD)

/** Notes whether a register is whole, and returns its bits; they are set with those of its file. */
export function choose(register: Register, chosen: string): number {
    if (chosen === WHOLE) {
        register.whole = true
    } else {
        delete register.whole
    }
    return parseInt(chosen)
}
