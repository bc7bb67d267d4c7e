import { describe, expect, it } from 'vitest'
import type { BlockView } from '../api/client'
import { netsOf, tagsOf } from './nets'

const blocks = [
    {
        name: 'console',
        clocks: [
            { name: 'clk', sort: 'clock', domain: 'main' },
            { name: 'rst', sort: 'reset', domain: null },
        ],
        interrupts: [
            { name: 'irq', line: 'device', sinkBlock: 'interrupts', sink: 'inputs', input: 3 },
            { name: 'spare', line: 'device', sinkBlock: null },
        ],
        outward: [
            { name: 'serial', part: 'usb', bound: true },
            { name: 'flow', part: null, bound: true },
            { name: 'led', part: null, bound: false },
        ],
    },
    {
        name: 'timer',
        clocks: [],
        interrupts: [{ name: 'timer', line: 'timer', sinkBlock: 'cpu', sink: 'timer', input: 0 }],
        outward: [],
    },
    {
        name: 'interrupts',
        clocks: [],
        interrupts: [],
        outward: [],
    },
] as unknown as BlockView[]

const named = (name: string) => blocks.find((block) => block.name === name) as BlockView

describe('tags', () => {
    it('say where every signal goes and mark the open ones', () => {
        expect(tagsOf(named('console')).map((tag) => [tag.text, tag.open])).toEqual([
            ['no reset', true],
            ['irq 3', false],
            ['spare open', true],
            ['usb', false],
            ['pins', false],
            ['led open', true],
        ])
        expect(tagsOf(named('timer')).map((tag) => tag.text)).toEqual(['timer → cpu'])
    })

    it('share a net with the block that they lead to', () => {
        expect(netsOf(named('interrupts'))).toContain('interrupt interrupts')
        expect(tagsOf(named('console')).map((tag) => tag.net)).toContain('interrupt interrupts')
        expect(netsOf(named('console'))).toContain('clock main')
        const open = tagsOf(named('console')).filter((tag) => tag.open)
        expect(new Set(open.map((tag) => tag.net)).size).toBe(open.length)
    })
})
