import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import type { PlatformContext } from './platform'

interface Sent {
    revision: number
    own?: number[]
    edit: { edit: string }
}

/** A server that keeps a revision, answers when it is told to, and refuses edits on an older revision. */
class Server {
    revision = 1
    reads = 0
    readonly edits: Sent[] = []
    private readonly held: (() => void)[] = []
    holding = false

    async answer(request: Request): Promise<Response> {
        if (request.method === 'GET') {
            this.reads++
            return Response.json({ revision: this.revision, name: 'Test' })
        }
        const sent = (await request.json()) as Sent
        const body = { ...sent, revision: Math.max(sent.revision, ...(sent.own ?? [])) }
        if (this.holding) {
            await new Promise<void>((resolve) => this.held.push(resolve))
        }
        if (body.revision !== this.revision) {
            return Response.json(
                { title: 'Changed meanwhile', detail: 'there is a newer revision' },
                { status: 409, headers: { 'Content-Type': 'application/problem+json' } },
            )
        }
        this.edits.push(body)
        this.revision++
        return Response.json({ revision: this.revision })
    }

    release(): void {
        this.holding = false
        this.held.splice(0).forEach((resolve) => resolve())
    }
}

class Stream {
    static readonly CLOSED = 2
    static all: Stream[] = []
    readyState = 1
    onerror?: () => void
    private readonly listeners = new Map<string, (event: { data: string }) => void>()
    constructor(readonly url: string) {
        Stream.all.push(this)
    }
    addEventListener(name: string, listener: (event: { data: string }) => void): void {
        this.listeners.set(name, listener)
    }
    say(name: string, data: object = {}): void {
        this.listeners.get(name)?.({ data: JSON.stringify({ platform: '7', ...data }) })
    }
    close(): void {
        this.readyState = Stream.CLOSED
    }
}

let server: Server
let context: PlatformContext
let unmount: () => void
let notices: typeof import('./notices')

beforeEach(async () => {
    server = new Server()
    Stream.all = []
    vi.stubGlobal('EventSource', Stream)
    vi.stubGlobal('fetch', (request: Request) => server.answer(request))
    // Node's requests want whole addresses; a browser takes them from the page.
    const Whole = class extends Request {
        constructor(input: string | URL | Request, init?: RequestInit) {
            super(typeof input === 'string' ? new URL(input, 'http://127.0.0.1') : input, init)
        }
    }
    vi.stubGlobal('Request', Whole)
    vi.resetModules()
    notices = await import('./notices')
    const { providePlatform } = await import('./platform')
    const host = defineComponent({
        setup() {
            context = providePlatform('7')
            return () => h('div', context.platform.value?.revision)
        },
    })
    const client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
    const wrapper = mount(host, { global: { plugins: [[VueQueryPlugin, { queryClient: client }]] } })
    unmount = () => wrapper.unmount()
    await vi.waitFor(() => expect(context.platform.value?.revision).toBe(1))
    await vi.waitFor(() => expect(Stream.all).toHaveLength(1))
    Stream.all[0]?.say('hello')
})

afterEach(() => {
    unmount()
    vi.useRealTimers()
    vi.unstubAllGlobals()
})

const rename = (name: string) => ({ edit: 'rename-platform', name })

describe('edits', () => {
    it('follow each other, each on the revision that the one before has made', async () => {
        const done = await Promise.all([
            context.edit(rename('a')),
            context.edit(rename('b')),
            context.undo(),
            context.edit(rename('c')),
        ])
        expect(done).toEqual([true, true, true, true])
        expect(server.edits.map((each) => each.revision)).toEqual([1, 2, 3, 4])
        expect(server.edits.map((each) => each.own)).toEqual([[], [2], undefined, [2, 3, 4]])
        await vi.waitFor(() => expect(context.platform.value?.revision).toBe(5))
        expect(context.saving.value).toBe(false)
    })

    it('behind a refused one are dropped: they were meant for what was seen before', async () => {
        server.holding = true
        const first = context.edit(rename('a'))
        const second = context.edit(rename('b'))
        await flushPromises()
        server.revision = 9 // changes of another user
        server.release()
        expect(await Promise.all([first, second])).toEqual([false, false])
        expect(server.edits).toEqual([])
        expect(notices.notices.map((notice) => notice.title)).toEqual(['Changed meanwhile'])
        await vi.waitFor(() => expect(context.platform.value?.revision).toBe(9))
        expect(await context.edit(rename('c'))).toBe(true)
        expect(server.edits.map((each) => each.revision)).toEqual([9])
    })

    it('that were worked out for a revision only apply to that one', async () => {
        expect(await context.edit(rename('a'))).toBe(true)
        expect(await context.edit(rename('b'), 1)).toBe(false)
        expect(await context.edit(rename('b'), 2)).toBe(true)
    })

    it('of typed values give the reason to where they were typed, and show no notice', async () => {
        expect(await context.tryEdit(rename('a'))).toBe(true)
        server.revision = 9
        expect(await context.tryEdit(rename('b'))).toContain('newer revision')
        expect(notices.notices).toEqual([])
    })

    it('wait while the server cannot be reached, and are sent again as the same edits', async () => {
        const numbers: unknown[] = []
        const answer = server.answer.bind(server)
        let lost = 2
        vi.spyOn(server, 'answer').mockImplementation(async (request) => {
            if (request.method === 'POST') {
                numbers.push(((await request.clone().json()) as { sentAs: string }).sentAs)
                if (lost-- > 0) {
                    throw new TypeError('Failed to fetch')
                }
            }
            return answer(request)
        })
        const first = context.edit(rename('a'))
        const second = context.tryEdit(rename('b'))
        await vi.waitFor(() => expect(context.waiting.value).toBe(2))
        expect(await Promise.all([first, second])).toEqual([true, true])
        expect(context.waiting.value).toBe(0)
        expect(notices.notices).toEqual([])
        expect(server.edits.map((each) => each.edit)).toEqual([rename('a'), rename('b')])
        expect(numbers).toHaveLength(4)
        expect(new Set(numbers.slice(0, 3)).size).toBe(1)
        expect(numbers[3]).not.toBe(numbers[0])
    }, 10_000)

    it('say who makes them', async () => {
        const headers: (string | null)[] = []
        const answer = server.answer.bind(server)
        vi.spyOn(server, 'answer').mockImplementation((request) => {
            headers.push(request.headers.get('Polymetron-Author'))
            return answer(request)
        })
        const { useAuthor, browser } = await import('../api/author')
        useAuthor().value = 'Äda L.'
        await context.edit(rename('a'))
        expect(headers[0]).toBe(`${browser} %C3%84da%20L.`)
        useAuthor().value = ''
    })

    it('that only look back are not sent again, since it is not known what they would take back', async () => {
        vi.spyOn(server, 'answer').mockRejectedValueOnce(new TypeError('Failed to fetch'))
        expect(await context.undo()).toBe(false)
        expect(notices.notices.at(-1)?.title).toBe('No connection')
    })
})

describe('notices', () => {
    it('do not pile up: the same one again takes the place of the one before', () => {
        notices.tell('problem', 'Refused', 'one')
        notices.tell('problem', 'Refused', 'two')
        notices.tell('problem', 'Refused', 'one')
        expect(notices.notices.map((each) => each.text)).toEqual(['two', 'one'])
        for (let at = 0; at < 9; at++) {
            notices.tell('done', 'Done', String(at))
        }
        expect(notices.notices).toHaveLength(3)
    })
})

describe('changes of others', () => {
    it('are read when the server tells of them', async () => {
        const before = server.reads
        server.revision = 4
        Stream.all[0]?.say('revision', { revision: 4 })
        await vi.waitFor(() => expect(context.platform.value?.revision).toBe(4))
        Stream.all[0]?.say('revision', { revision: 4 })
        await flushPromises()
        expect(server.reads).toBe(before + 1)
    })

    it('are listened for again after the stream was refused', async () => {
        vi.useFakeTimers()
        const stream = Stream.all[0]
        stream?.close()
        stream?.onerror?.()
        expect(context.connected.value).toBe(false)
        await vi.advanceTimersByTimeAsync(2_500)
        expect(Stream.all).toHaveLength(2)
        Stream.all[1]?.say('hello')
        expect(context.connected.value).toBe(true)
    })

    it('that remove the platform are said, and that it is back', () => {
        Stream.all[0]?.say('gone')
        expect(context.gone.value).toBe(true)
        Stream.all[0]?.say('revision', { revision: 1 })
        expect(context.gone.value).toBe(false)
    })

    it('of another platform are nothing to this one', async () => {
        const before = server.reads
        Stream.all[0]?.say('revision', { platform: '8', revision: 9 })
        await flushPromises()
        expect(server.reads).toBe(before)
    })
})
