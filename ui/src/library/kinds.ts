/** The sorts of block types in the order in which a platform is put together, and what people call them. */
export const KINDS: Record<string, string> = {
    processor: 'Processors',
    memory: 'Memory',
    peripheral: 'Peripherals',
    timer: 'Timers',
    'interrupt-controller': 'Interrupt controllers',
    'data-mover': 'Data movement',
    stream: 'Streams',
    bridge: 'Bridges',
    infrastructure: 'Infrastructure',
}

/** Entries by kind, in that order, without empty kinds. */
export function byKind<T extends { kind: string }>(entries: T[]): { title: string; entries: T[] }[] {
    return Object.entries(KINDS)
        .map(([kind, title]) => ({ title, entries: entries.filter((entry) => entry.kind === kind) }))
        .filter((group) => group.entries.length > 0)
}
