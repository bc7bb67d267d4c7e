import { randomId } from './author'

/** A request that takes long, by a number that it is sent with as `work`. */
export interface NumberedWork {
    number: string
    /** Ends it on the server too: a request that is only given up goes on there. */
    cancel: () => void
}

export function numberedWork(): NumberedWork {
    const number = randomId()
    return {
        number,
        cancel: () => {
            // What cannot be cancelled any more comes to its end by itself.
            fetch(`/api/work/${number}`, { method: 'DELETE' }).catch(() => undefined)
        },
    }
}
