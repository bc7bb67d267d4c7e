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

export function sizeRows(size: Pick<BlockSizeView, 'made' | 'said'>): SizeRow[] {
    const row = (what: string, made: number, said: number): SizeRow => ({
        what,
        made,
        said,
        isFar: Math.abs(made - said) > Math.max(FEW, made / 5),
    })
    return [
        row('lookup tables', size.made.lookupTables, size.said.lookupTables),
        row('flip-flops', size.made.flipFlops, size.said.flipFlops),
        row('multipliers', size.made.multipliers, size.said.multipliers),
    ]
}
