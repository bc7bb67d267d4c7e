import type { PlatformView } from '../api/client'

/** A line of the palette. */
export interface Entry {
    key: string
    title: string
    detail: string
    kind:
        | 'do'
        | 'block'
        | 'bus'
        | 'clock'
        | 'parameter'
        | 'register'
        | 'interrupt'
        | 'finding'
        | 'pin'
        | 'address'
    run: () => void
}

interface Reactions {
    show: (block: string) => void
    copy: (text: string) => void
}

/** Blocks, pins, clocks, buses, interrupts and findings whose words contain all words of the text. */
export function search(platform: PlatformView, text: string, react: Reactions): Entry[] {
    const words = text
        .toLowerCase()
        .split(/[\s.]+/)
        .filter(Boolean)
    if (words.length === 0) {
        return platform.blocks.map((block) => blockEntry(block, react))
    }
    const matches = (haystack: string): boolean =>
        words.every((word) => haystack.toLowerCase().includes(word))
    const entries: Entry[] = []
    for (const block of platform.blocks) {
        if (matches(`${block.name} ${block.title} ${block.kind}`)) {
            entries.push(blockEntry(block, react))
        }
    }
    for (const block of platform.blocks) {
        for (const outward of block.outward) {
            for (const pins of outward.pins) {
                if (matches(pins)) {
                    entries.push({
                        key: `pin ${block.name} ${pins}`,
                        title: `${block.name} ${pins}`,
                        detail: outward.part ?? 'by hand',
                        kind: 'pin',
                        run: () => react.show(block.name),
                    })
                }
            }
        }
    }
    for (const domain of platform.domains) {
        if (matches(`${domain.name} ${domain.frequency} ${domain.clock} clock`)) {
            entries.push({
                key: `clock ${domain.name}`,
                title: `clock domain ${domain.name}, from ${domain.clock}`,
                detail: domain.frequency,
                kind: 'clock',
                run: () => react.show(`domain ${domain.name}`),
            })
        }
    }
    for (const bus of platform.buses) {
        if (matches(`${bus.name} ${bus.protocolTitle} bus`)) {
            entries.push({
                key: `bus ${bus.name}`,
                title: `bus ${bus.name}`,
                detail: `${bus.protocolTitle}, ${String(bus.dataWidth)} bit`,
                kind: 'bus',
                run: () => react.show(`bus ${bus.name}`),
            })
        }
    }
    for (const block of platform.blocks) {
        for (const wire of block.interrupts) {
            if (matches(`${block.name} ${wire.name} irq ${String(wire.input ?? '')}`)) {
                entries.push({
                    key: `interrupt ${block.name} ${wire.name}`,
                    title: `${block.name}.${wire.name}`,
                    detail: wire.sinkBlock ? `${wire.sinkBlock} ${String(wire.input ?? '')}` : 'open',
                    kind: 'interrupt',
                    run: () => react.show(block.name),
                })
            }
        }
    }
    for (const finding of platform.findings) {
        if (matches(`${finding.what} ${finding.title}`)) {
            entries.push({
                key: `finding ${finding.rule} ${finding.subject}`,
                title: finding.what,
                detail: finding.grade,
                kind: 'finding',
                run: () => react.show(finding.block),
            })
        }
    }
    return entries
}

function blockEntry(block: PlatformView['blocks'][number], react: Reactions): Entry {
    return {
        key: `block ${block.name}`,
        title: `${block.name} · ${block.title}`,
        detail: block.base ?? '',
        kind: 'block',
        run: () => react.show(block.name),
    }
}
