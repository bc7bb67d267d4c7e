import type { BlockSizeView } from '../api/client'

/** One figure of a block's size. */
export interface SizeRow {
    what: string
    /** What synthesis made. */
    made: number
    /** What the definition says. */
    said: number
    /** Whether a fit that counts with the definition is off by more than a fifth, and by more than a few. */
    isFar: boolean
}

const FEW = 20

/**
 * @param resources what the definition says now, where it is edited; formulas count as they were when the size was measured
 */
export function sizeRows(size: Pick<BlockSizeView, 'made' | 'said'>, resources?: unknown): SizeRow[] {
    const now = (resources ?? {}) as Record<string, unknown>
    const row = (what: string, key: keyof BlockSizeView['made']): SizeRow => {
        const made = size.made[key]
        const figure = now[key]
        const said = typeof figure === 'number' ? figure : size.said[key]
        return { what, made, said, isFar: Math.abs(made - said) > Math.max(FEW, made / 5) }
    }
    return [
        row('lookup tables', 'lookupTables'),
        row('flip-flops', 'flipFlops'),
        row('multipliers', 'multipliers'),
    ]
}
