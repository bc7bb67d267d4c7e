import { describe, expect, it } from 'vitest'
import type { StreamView } from '../api/client'
import { layOutLanes } from './laneLayout'

const stream = (from: string, to?: string): StreamView => ({
    block: from,
    source: 'out',
    width: 32,
    carries: '',
    sinkBlock: to ?? null,
    sink: to ? 'in' : null,
    wrong: false,
})
const same = (name: string): string => name

describe('layOutLanes', () => {
    const chain = [stream('reader', 'split'), stream('split', 'queue'), stream('split', 'trigger')]

    it('goes from left to right and opens a row for each further sink', () => {
        const [lane] = layOutLanes(chain, [], same)
        expect(lane?.nodes.map((node) => [node.name, node.column, node.row])).toEqual([
            ['reader', 0, 0],
            ['split', 1, 0],
            ['queue', 2, 0],
            ['trigger', 2, 1],
        ])
    })

    it('keeps what is not connected in lanes of their own, and shows open ends', () => {
        const lanes = layOutLanes([...chain, stream('queue'), stream('other')], ['probe.watched'], same)
        expect(lanes.map((lane) => lane.nodes.map((node) => node.name))).toEqual([
            ['reader', 'split', 'queue', 'trigger'],
            ['other'],
            ['probe'],
        ])
        expect(lanes[0]?.edges.filter((edge) => !edge.to)).toHaveLength(1)
        expect(lanes[2]?.edges[0]?.sink).toBe('probe.watched')
    })

    it('draws a folded group as one', () => {
        const folded = (name: string): string => (name === 'split' || name === 'queue' ? 'group chain' : name)
        const [lane] = layOutLanes(chain, [], folded)
        expect(lane?.nodes.map((node) => node.name)).toEqual(['reader', 'group chain', 'trigger'])
    })

    it('never puts two blocks in one place, whatever the streams are, circles too', () => {
        let seed = 7
        const random = (below: number): number => {
            seed = (seed * 1103515245 + 12345) % 2147483648
            return seed % below
        }
        for (let round = 0; round < 200; round++) {
            const streams = Array.from({ length: 12 }, () =>
                stream(`b${String(random(9))}`, random(6) ? `b${String(random(9))}` : undefined),
            )
            for (const lane of layOutLanes(streams, [`b${String(random(9))}.in`], same)) {
                const places = lane.nodes.map((node) => `${String(node.column)}/${String(node.row)}`)
                expect(new Set(places).size).toBe(places.length)
            }
        }
    })
})
