/** The newest words of a stream, sorted into the channels of its packets. */
export interface StreamRows {
    /** Number of the packet, or of the word where there are no packets. */
    x: number[]
    /** A row of values for each channel. */
    channels: number[][]
    isPackets: boolean
}

/** The lowest bits of a word as a signed sample; as it is where the words are no samples. */
export function sampleOf(word: number, bits: number): number {
    return bits > 0 && bits < 32 ? (word << (32 - bits)) >> (32 - bits) : bits === 32 ? word | 0 : word >>> 0
}

/**
 * @param ends which words ended a packet; where none did, there is one channel
 * @param most packets that are kept, the newest
 */
export function rowsOf(values: number[], ends: boolean[], bits: number, most: number): StreamRows {
    const hasPackets = ends.some((end) => end)
    const packets: number[][] = []
    let packet: number[] = []
    // What comes before the first end may be a part of a packet.
    let begun = !hasPackets
    values.forEach((value, at) => {
        if (begun) {
            packet.push(sampleOf(value, bits))
        }
        if (!hasPackets || ends[at]) {
            if (begun) {
                packets.push(packet)
            }
            packet = []
            begun = true
        }
    })
    const shown = packets.slice(-most)
    const count = Math.min(8, Math.max(0, ...shown.map((each) => each.length)))
    return {
        x: shown.map((_, at) => packets.length - shown.length + at),
        channels: Array.from({ length: count }, (_, channel) => shown.map((each) => each[channel] ?? NaN)),
        isPackets: hasPackets,
    }
}
