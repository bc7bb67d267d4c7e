/**
 * The one stream of events of a browser. Tabs say which topics they follow, such as `platform=ID` or `bench=ID`; the
 * hub keeps a stream that covers all of them, and gives each tab what it follows. A tab that joins later is told at
 * once what the others have heard already.
 */

export interface Listener {
    /** What the tab follows. */
    topics: ReadonlySet<string>
    hear: (message: Message) => void
}

export type Message =
    { kind: 'connected' } | { kind: 'lost' } | { kind: 'event'; topic: string; name: string; data: EventData }

/** Every event belongs to a platform. */
export interface EventData {
    platform: string
    [key: string]: unknown
}

interface Frame extends EventData {
    load: string
    fresh: boolean
    console: string
    state: { consoleTotal: number }
}

const RETRY_MILLIS = 2000
const GATHER_MILLIS = 30
/** As much as the server keeps of a console. */
const CONSOLE_KEPT = 256 * 1024
const TOPIC_OF: Record<string, string> = {
    revision: 'platform',
    gone: 'platform',
    frame: 'bench',
    unloaded: 'bench',
}

export class EventHub {
    private readonly listeners = new Set<Listener>()
    private readonly last = new Map<string, { name: string; data: EventData }>()
    /** Topics whose news are complete, and how many the stream was opened for. */
    private covered = new Set<string>()
    private opened = 0
    private source: EventSource | undefined
    private retry: ReturnType<typeof setTimeout> | undefined
    private gather: ReturnType<typeof setTimeout> | undefined
    /** What the tabs were last told; nothing as long as nothing is known. */
    private connection: 'connected' | 'lost' | undefined

    join(listener: Listener): void {
        this.listeners.add(listener)
        this.follow(listener)
    }

    /** After a listener's topics have changed. */
    follow(listener: Listener): void {
        if (this.connection) {
            listener.hear({ kind: this.connection })
        }
        for (const topic of listener.topics) {
            const known = this.last.get(topic)
            if (known) {
                listener.hear({ kind: 'event', topic, ...known })
            }
        }
        this.cover()
    }

    leave(listener: Listener): void {
        this.listeners.delete(listener)
        this.cover()
    }

    /** Makes a new stream when the one there is does not cover what is followed; several changes at once make one. */
    private cover(): void {
        this.gather ??= setTimeout(() => {
            this.gather = undefined
            const wanted = this.wanted()
            for (const topic of this.covered) {
                if (!wanted.has(topic)) {
                    this.forget(topic)
                }
            }
            const isCovered = [...wanted].every((topic) => this.covered.has(topic))
            const isMuchMore = this.opened > 2 * wanted.size
            if (!isCovered || isMuchMore) {
                this.connect(wanted)
            }
        }, GATHER_MILLIS)
    }

    /** A bench that no tab follows is not kept up to date; a tab that follows it again needs a new stream. */
    private forget(topic: string): void {
        this.last.delete(topic)
        this.covered.delete(topic)
    }

    private wanted(): Set<string> {
        return new Set([...this.listeners].flatMap((each) => [...each.topics]).sort())
    }

    private connect(wanted: Set<string>): void {
        clearTimeout(this.retry)
        this.source?.close()
        this.source = undefined
        this.covered = new Set(wanted)
        this.opened = wanted.size
        if (wanted.size === 0) {
            return
        }
        const source = new EventSource(`/api/events?${[...wanted].join('&')}`)
        this.source = source
        source.addEventListener('hello', () => {
            this.tellAll('connected')
        })
        for (const name of Object.keys(TOPIC_OF)) {
            source.addEventListener(name, (event) => {
                this.take(name, JSON.parse((event as MessageEvent<string>).data) as EventData)
            })
        }
        source.onerror = () => {
            if (source !== this.source) {
                return
            }
            this.tellAll('lost')
            // The browser itself tries again after a break, but not after an error instead of a stream.
            if (source.readyState === EventSource.CLOSED) {
                this.retry = setTimeout(() => this.connect(this.wanted()), RETRY_MILLIS)
            }
        }
    }

    private take(name: string, data: EventData): void {
        const topic = `${TOPIC_OF[name]}=${data.platform}`
        const followers = [...this.listeners].filter((each) => each.topics.has(topic))
        if (followers.length === 0) {
            this.forget(topic)
            return
        }
        const event = name === 'frame' ? this.joined(topic, data as Frame) : { kept: data, told: data }
        this.last.set(topic, { name, data: event.kept })
        followers.forEach((each) => each.hear({ kind: 'event', topic, name, data: event.told }))
    }

    /**
     * A frame says what the console said since the one before, or from the start where the stream is new. Kept is the
     * whole console; told is only what the tabs do not have yet.
     */
    private joined(topic: string, frame: Frame): { kept: Frame; told: Frame } {
        const before = this.last.get(topic)?.data as Frame | undefined
        const same = before?.load === frame.load
        if (!frame.fresh) {
            const console = ((same && before.console) || '') + frame.console
            return { kept: { ...frame, fresh: true, console: console.slice(-CONSOLE_KEPT) }, told: frame }
        }
        if (!same) {
            return { kept: frame, told: frame }
        }
        const missing = frame.state.consoleTotal - before.state.consoleTotal
        const known = missing >= 0 && missing <= frame.console.length
        return {
            kept: frame,
            told: known
                ? { ...frame, fresh: false, console: missing ? frame.console.slice(-missing) : '' }
                : frame,
        }
    }

    private tellAll(connection: 'connected' | 'lost'): void {
        this.connection = connection
        for (const listener of this.listeners) {
            listener.hear({ kind: connection })
        }
    }
}
