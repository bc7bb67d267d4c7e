import { onScopeDispose, ref, type Ref } from 'vue'
import { EventHub, type EventData, type Listener, type Message } from './eventHub'
import type { Request } from './hubWorker'

type Hear = (name: string, data: EventData) => void

const followers = new Map<string, Set<Hear>>()
const connected = ref(true)
const onConnected = new Set<() => void>()
let send: ((topics: string[]) => void) | undefined

function hear(message: Message): void {
    if (message.kind === 'event') {
        followers.get(message.topic)?.forEach((each) => each(message.name, message.data))
    } else if (message.kind === 'lost') {
        connected.value = false
    } else {
        const back = !connected.value
        connected.value = true
        if (back) {
            onConnected.forEach((each) => each())
        }
    }
}

const PROBE_MILLIS = 2000

/**
 * The browser says that the network is gone, which need not be so for a server on the same machine: whether it can be
 * reached is tried, until it can.
 */
async function probe(): Promise<void> {
    try {
        await fetch('/mark.svg', { method: 'HEAD', cache: 'no-store' })
        hear({ kind: 'connected' })
    } catch {
        hear({ kind: 'lost' })
        window.setTimeout(() => void probe(), PROBE_MILLIS)
    }
}

window.addEventListener('offline', () => void probe())

/** One hub for all tabs where the browser can do that, otherwise one a tab. */
function start(): (topics: string[]) => void {
    if (typeof SharedWorker === 'undefined' || !('locks' in navigator)) {
        const hub = new EventHub()
        const listener: Listener & { topics: Set<string> } = { topics: new Set(), hear }
        hub.join(listener)
        return (topics) => {
            listener.topics = new Set(topics)
            hub.follow(listener)
        }
    }
    const worker = new SharedWorker(new URL('./hubWorker.ts', import.meta.url), {
        type: 'module',
        name: 'polymetron-events',
    })
    const lock = `polymetron-tab-${crypto.randomUUID()}`
    const held = new Promise<void>((resolve) => {
        void navigator.locks.request(lock, () => {
            resolve()
            return new Promise(() => undefined)
        })
    })
    worker.port.onmessage = (event: MessageEvent<Message>) => hear(event.data)
    worker.port.start()
    return (topics) => void held.then(() => worker.port.postMessage({ topics, lock } satisfies Request))
}

function tellTopics(): void {
    send ??= start()
    send([...followers.keys()])
}

/** Hears the events of a topic, such as `platform=ID`, as long as the component is there. */
export function useTopic(topic: string, told: Hear): void {
    const all = followers.get(topic) ?? new Set()
    all.add(told)
    followers.set(topic, all)
    tellTopics()
    onScopeDispose(() => {
        all.delete(told)
        if (all.size === 0) {
            followers.delete(topic)
        }
        tellTopics()
    })
}

/**
 * Whether the server tells about changes.
 * @param back called when it does so again
 */
export function useConnected(back: () => void): Ref<boolean> {
    onConnected.add(back)
    onScopeDispose(() => onConnected.delete(back))
    return connected
}
