import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { EventHub, type EventData, type Message } from './eventHub'

class Stream {
    static readonly CLOSED = 2
    static all: Stream[] = []
    readyState = 1
    onerror?: () => void
    private readonly listeners = new Map<string, (event: { data: string }) => void>()
    constructor(readonly url: string) {
        Stream.all.push(this)
    }
    static get open(): Stream[] {
        return Stream.all.filter((each) => each.readyState === 1)
    }
    addEventListener(name: string, listener: (event: { data: string }) => void): void {
        this.listeners.set(name, listener)
    }
    say(name: string, data: object = {}): void {
        this.listeners.get(name)?.({ data: JSON.stringify(data) })
    }
    close(): void {
        this.readyState = Stream.CLOSED
    }
}

class Tab {
    readonly heard: Message[] = []
    topics: Set<string>
    constructor(...topics: string[]) {
        this.topics = new Set(topics)
    }
    hear = (message: Message): void => void this.heard.push(message)
    get events(): { name: string; data: EventData }[] {
        return this.heard.filter((each) => each.kind === 'event').map(({ name, data }) => ({ name, data }))
    }
    /** What a console on this tab shows: it begins anew where a frame says so. */
    get console(): string {
        return this.events.reduce(
            (text, { data }) => (data.fresh ? '' : text) + String(data.console ?? ''),
            '',
        )
    }
}

let hub: EventHub

beforeEach(() => {
    vi.useFakeTimers()
    Stream.all = []
    vi.stubGlobal('EventSource', Stream)
    hub = new EventHub()
})

afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
})

const settle = () => vi.advanceTimersByTimeAsync(50)
const stream = () => Stream.open[0]

function frame(load: string, fresh: boolean, console: string, consoleTotal: number): object {
    return { platform: 'a', load, fresh, console, state: { consoleTotal } }
}

describe('one stream', () => {
    it('covers all tabs, however many there are', async () => {
        for (let tab = 0; tab < 12; tab++) {
            hub.join(new Tab(`platform=${tab % 3}`, 'bench=1'))
        }
        await settle()
        expect(Stream.all.map((each) => each.url)).toEqual([
            '/api/events?bench=1&platform=0&platform=1&platform=2',
        ])
        hub.join(new Tab('platform=1'))
        await settle()
        expect(Stream.all).toHaveLength(1)
        hub.join(new Tab('platform=9'))
        await settle()
        expect(Stream.open.map((each) => each.url)).toEqual([
            '/api/events?bench=1&platform=0&platform=1&platform=2&platform=9',
        ])
    })

    it('is closed when the last tab has gone', async () => {
        const tab = new Tab('platform=a')
        hub.join(tab)
        await settle()
        hub.leave(tab)
        await settle()
        expect(Stream.open).toEqual([])
    })

    it('is made again after it was refused, and left to the browser after a break', async () => {
        const tab = new Tab('platform=a')
        hub.join(tab)
        await settle()
        stream()?.say('hello')
        stream()?.onerror?.()
        expect(tab.heard.map((each) => each.kind)).toEqual(['connected', 'lost'])
        await vi.advanceTimersByTimeAsync(5000)
        expect(Stream.all).toHaveLength(1)
        const refused = stream()
        refused?.close()
        refused?.onerror?.()
        await vi.advanceTimersByTimeAsync(2500)
        expect(Stream.open).toHaveLength(1)
    })
})

describe('tabs', () => {
    it('hear what they follow and nothing else', async () => {
        const [one, other] = [new Tab('platform=a'), new Tab('platform=b')]
        hub.join(one)
        hub.join(other)
        await settle()
        stream()?.say('revision', { platform: 'a', revision: 2 })
        expect(one.events).toEqual([{ name: 'revision', data: { platform: 'a', revision: 2 } }])
        expect(other.events).toEqual([])
    })

    it('that come later hear at once what is known', async () => {
        hub.join(new Tab('platform=a'))
        await settle()
        stream()?.say('hello')
        stream()?.say('revision', { platform: 'a', revision: 2 })
        const late = new Tab('platform=a')
        hub.join(late)
        expect(late.heard.map((each) => each.kind)).toEqual(['connected', 'event'])
    })

    it('that come while the connection is lost are told so', async () => {
        hub.join(new Tab('platform=a'))
        await settle()
        stream()?.onerror?.()
        const late = new Tab('platform=a')
        hub.join(late)
        expect(late.heard.map((each) => each.kind)).toEqual(['lost'])
    })

    it('get the whole console again after a time without a reader', async () => {
        const tab = new Tab('platform=a', 'platform=b', 'bench=a')
        hub.join(tab)
        await settle()
        stream()?.say('frame', frame('x', true, 'one ', 4))
        tab.topics = new Set(['platform=a', 'platform=b'])
        hub.follow(tab)
        // Before and after the hub has noticed that no tab follows the bench.
        stream()?.say('frame', frame('x', false, 'two ', 8))
        await settle()
        stream()?.say('frame', frame('x', false, 'three ', 14))
        tab.topics.add('bench=a')
        hub.follow(tab)
        await settle()
        expect(Stream.all).toHaveLength(2)
        stream()?.say('frame', frame('x', true, 'one two three ', 14))
        expect(tab.console).toBe('one two three ')
    })

    it('all show the whole console, whenever they come and whenever the stream is opened again', async () => {
        const first = new Tab('bench=a')
        hub.join(first)
        await settle()
        stream()?.say('frame', frame('x', true, 'one ', 4))
        stream()?.say('frame', frame('x', false, 'two ', 8))
        const second = new Tab('bench=a')
        hub.join(second)
        expect(second.console).toBe('one two ')
        hub.join(new Tab('platform=b'))
        await settle()
        stream()?.say('frame', frame('x', true, 'one two three ', 14))
        expect(first.console).toBe('one two three ')
        expect(first.events.filter(({ data }) => data.fresh)).toHaveLength(1)
        expect(second.console).toBe('one two three ')
        stream()?.say('frame', frame('y', true, 'anew', 4))
        expect(first.console).toBe('anew')
    })
})
