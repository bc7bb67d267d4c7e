import type { BlockView } from '../api/client'

/** A small mark on a block for a signal that is no line: clock, interrupt, board part. */
export interface SignalTag {
    text: string
    /** Everything with the same net lights up together. */
    net: string
    open: boolean
}

/** The tags of a block. The clock is left out where it is the one of the band behind the block. */
export function tagsOf(block: BlockView): SignalTag[] {
    const name = block.name
    const tags: SignalTag[] = []
    for (const clock of block.clocks) {
        if (!clock.domain) {
            tags.push({
                text: clock.sort === 'clock' ? 'no clock' : 'no reset',
                net: `open ${name}.${clock.name}`,
                open: true,
            })
        }
    }
    const toHarts = new Map<string, string[]>()
    for (const wire of block.interrupts) {
        if (!wire.sinkBlock) {
            tags.push({ text: `${wire.name} open`, net: `open ${name}.${wire.name}`, open: true })
        } else if (wire.line === 'device') {
            tags.push({ text: `irq ${String(wire.input)}`, net: `interrupt ${wire.sinkBlock}`, open: false })
        } else {
            toHarts.set(wire.sinkBlock, [...(toHarts.get(wire.sinkBlock) ?? []), wire.line])
        }
    }
    for (const [hart, lines] of toHarts) {
        tags.push({
            text: lines.length > 1 ? lines.join(', ') : `${lines.join()} → ${hart}`,
            net: `interrupt ${hart}`,
            open: false,
        })
    }
    for (const outward of block.outward) {
        const text = outward.part ?? (outward.bound ? 'pins' : `${outward.name} open`)
        tags.push({ text, net: `part ${outward.part ?? name}`, open: !outward.bound })
    }
    return tags
}

/** Every net that a block is on, with those that its tags do not show. */
export function netsOf(block: BlockView): Set<string> {
    const nets = new Set(tagsOf(block).map((tag) => tag.net))
    nets.add(`interrupt ${block.name}`)
    for (const clock of block.clocks) {
        if (clock.domain) {
            nets.add(`${clock.sort} ${clock.domain}`)
        }
    }
    return nets
}
