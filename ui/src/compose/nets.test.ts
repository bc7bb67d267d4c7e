import { describe, expect, it } from 'vitest'
import type { PlatformView } from '../api/client'
import { netsOf, tagsOf } from './nets'

const platform = {
    blocks: [
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
    ],
} as unknown as PlatformView

describe('tags', () => {
    it('say where every signal goes and mark the open ones', () => {
        expect(tagsOf(platform, 'console').map((tag) => [tag.text, tag.open])).toEqual([
            ['no reset', true],
            ['irq 3', false],
            ['spare open', true],
            ['usb', false],
            ['pins', false],
            ['led open', true],
        ])
        expect(tagsOf(platform, 'timer').map((tag) => tag.text)).toEqual(['timer → cpu'])
        expect(tagsOf(platform, 'nobody')).toEqual([])
    })

    it('share a net with the block that they lead to', () => {
        expect(netsOf(platform, 'interrupts')).toContain('interrupt interrupts')
        expect(tagsOf(platform, 'console').map((tag) => tag.net)).toContain('interrupt interrupts')
        expect(netsOf(platform, 'console')).toContain('clock main')
        const open = tagsOf(platform, 'console').filter((tag) => tag.open)
        expect(new Set(open.map((tag) => tag.net)).size).toBe(open.length)
    })
})
