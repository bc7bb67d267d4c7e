import type { PlatformSummary } from '../api/client'

export type Column = 'name' | 'board' | 'blocks' | 'state' | 'changed'

export interface Order {
    by: Column
    descends: boolean
}

export const COLUMNS: { by: Column; title: string }[] = [
    { by: 'name', title: 'Platform' },
    { by: 'board', title: 'Board' },
    { by: 'blocks', title: 'Blocks' },
    { by: 'state', title: 'State' },
    { by: 'changed', title: 'Changed' },
]

const WORDS = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })

const COMPARE: Record<Column, (a: PlatformSummary, b: PlatformSummary) => number> = {
    name: (a, b) => WORDS.compare(a.name, b.name),
    board: (a, b) => WORDS.compare(a.board ?? '', b.board ?? ''),
    blocks: (a, b) => (a.blocks ?? 0) - (b.blocks ?? 0),
    state: (a, b) => (a.errors ?? 0) - (b.errors ?? 0) || (a.warnings ?? 0) - (b.warnings ?? 0),
    changed: (a, b) => a.savedAt.localeCompare(b.savedAt),
}

/** The platforms whose name, board or author has all words of the search, in an order; equal ones by name. */
export function arranged(platforms: PlatformSummary[], find: string, order: Order): PlatformSummary[] {
    const words = find.toLowerCase().split(/\s+/).filter(Boolean)
    return platforms
        .filter((each) => {
            const text = `${each.name} ${each.board ?? ''} ${each.by ?? ''}`.toLowerCase()
            return words.every((word) => text.includes(word))
        })
        .sort((a, b) => COMPARE[order.by](a, b) * (order.descends ? -1 : 1) || WORDS.compare(a.name, b.name))
}
