import { describe, expect, it, vi } from 'vitest'
import type { PlatformView } from '../api/client'
import { search } from './search'

const block = (name: string, title: string, pins: string[] = []) => ({
    name,
    title,
    kind: 'serial',
    base: name === 'console' ? '0x1000_0000' : null,
    outward: [{ pins, part: 'usb' }],
    interrupts: [{ name: 'irq', sinkBlock: 'plic', input: 3 }],
})
const platform = {
    blocks: [block('console', 'UART', ['txd A8', 'rxd B8']), block('modem', 'UART')],
    domains: [{ name: 'main', clock: 'oscillator', frequency: '100 MHz' }],
    buses: [{ name: 'system', protocolTitle: 'AXI4', dataWidth: 64 }],
    findings: [
        {
            rule: 'r',
            subject: 's',
            what: 'modem has no clock',
            title: 'no clock',
            block: 'modem',
            grade: 'error',
        },
    ],
} as unknown as PlatformView

const react = { show: vi.fn(), copy: vi.fn() }
const titles = (text: string): string[] => search(platform, text, react).map((entry) => entry.title)

describe('search', () => {
    it('offers all blocks as long as nothing is asked', () => {
        expect(titles('  ')).toEqual(['console · UART', 'modem · UART'])
    })

    it('wants every word, in any order, with dots or without', () => {
        expect(titles('uart')).toEqual(['console · UART', 'modem · UART'])
        expect(titles('console.uart')).toEqual(['console · UART'])
        expect(titles('console irq')).toEqual(['console.irq'])
        expect(titles('UART mod')).toEqual(['modem · UART'])
        expect(titles('uart missing')).toEqual([])
    })

    it('finds pins and findings, and goes to their block', () => {
        expect(titles('a8')).toEqual(['console txd A8'])
        const [finding] = search(platform, 'no clock', react)
        finding?.run()
        expect(react.show).toHaveBeenLastCalledWith('modem')
    })

    it('finds clocks and buses, and selects them', () => {
        expect(titles('100 mhz')).toEqual(['clock domain main, from oscillator'])
        search(platform, 'axi4', react)[0]?.run()
        expect(react.show).toHaveBeenLastCalledWith('bus system')
    })

    it('shows where a block is', () => {
        expect(search(platform, 'uart', react).map((entry) => entry.detail)).toEqual(['0x1000_0000', ''])
    })
})
