import type { BlockView, TargetView } from '../api/client'
import { tagsOf } from './nets'

/** A small mark on a card: what is unusual about a target, where it leads, and the signals of its block. */
export interface CardChip {
    text: string
    title?: string
    /** Everything with the same net lights up together. */
    net?: string
    sort: 'plain' | 'held' | 'wrong' | 'open'
}

/** The chips of a target. What nearly every target has, such as an adapter of its protocol, is said in the inspector. */
export function chipsOf(target: TargetView, block: BlockView | undefined): CardChip[] {
    const chips: CardChip[] = []
    if (target.held) {
        chips.push({ text: 'locked', sort: 'held', title: 'Its address stays when others are placed' })
    }
    if (target.conflict) {
        chips.push({ text: 'overlap', sort: 'wrong' })
    }
    if (target.leadsTo) {
        chips.push({ text: `to ${target.leadsTo}`, sort: 'plain' })
    }
    if (block?.group) {
        chips.push({ text: block.group, sort: 'plain', title: `in group ${block.group}` })
    }
    for (const tag of block ? tagsOf(block) : []) {
        chips.push({ text: tag.text, net: tag.net, sort: tag.open ? 'open' : 'plain' })
    }
    return chips
}

/** Widths in pixels of a letter at 11 pixels, of the ends of a chip, and of the space between two. */
const LETTER = 6.2
const ENDS = 16
const SPACE = 4

/** Lines that chips take; one that is wider than the card has a line of its own, cut at its end. */
export function linesOf(chips: CardChip[], width: number): number {
    let lines = 0
    let left = 0
    for (const chip of chips) {
        const wide = Math.min(width, Math.ceil(chip.text.length * LETTER + ENDS))
        if (lines === 0 || wide > left) {
            lines++
            left = width
        }
        left -= wide + SPACE
    }
    return lines
}
