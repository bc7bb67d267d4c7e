/** A range on a bus, and where software finds it when the bus is behind a bridge. */
export interface SeenRange {
    base?: string | null | undefined
    software?: { base: string } | null | undefined
}

/** A typed address of software as one on the bus, for the server to work out: sums and all, it stays what was typed. */
export function onBus(seen: SeenRange | undefined, typed: string): string {
    return seen?.software ? `${typed} - ${seen.software.base} + ${seen.base ?? '0'}` : typed
}

/** An address as a number; `undefined` where there is none. */
export function addressNumber(address: string | null | undefined): bigint | undefined {
    return address ? BigInt(address.replaceAll('_', '')) : undefined
}
