/** Runs the event hub for all tabs of the browser. */
import { EventHub, type Listener } from './eventHub'

export interface Request {
    topics: string[]
    /** A lock that the tab holds as long as it is there. */
    lock: string
}

const hub = new EventHub()
const scope = self as unknown as { onconnect: (event: MessageEvent) => void }

scope.onconnect = (event) => {
    const port = event.ports[0]
    if (!port) {
        return
    }
    const listener: Listener & { topics: Set<string> } = {
        topics: new Set(),
        hear: (message) => port.postMessage(message),
    }
    let joined = false
    port.onmessage = (message: MessageEvent<Request>) => {
        listener.topics = new Set(message.data.topics)
        if (joined) {
            hub.follow(listener)
            return
        }
        joined = true
        hub.join(listener)
        // A tab that is closed or crashes says nothing, but lets go of its lock.
        void navigator.locks.request(message.data.lock, () => {
            hub.leave(listener)
            port.close()
        })
    }
}
