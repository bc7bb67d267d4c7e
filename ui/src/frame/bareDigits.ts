/** Fewer digits are hardly ever meant as a hexadecimal address. */
const FEWEST = 4

/** What to ask where digits without a prefix were typed for an address, which could be meant as hexadecimal. */
export function bareDigits(typed: string): string | undefined {
    const digits = typed.replaceAll('_', '').trim()
    if (!/^\d+$/.test(digits) || digits.length < FEWEST || digits.length > 16) {
        return undefined
    }
    return `Hexadecimal? Then write ${grouped(digits)}. Enter takes it as decimal, ${addressText(BigInt(digits))}.`
}

/** An address as everywhere: 0x1000_2004. */
export function addressText(address: bigint): string {
    return grouped(address.toString(16))
}

/** With at least eight digits, in groups of four. */
function grouped(hexadecimal: string): string {
    const digits = hexadecimal.toUpperCase().replace(/^0+/, '').padStart(8, '0')
    return `0x${digits.replace(/\B(?=(.{4})+$)/g, '_')}`
}
