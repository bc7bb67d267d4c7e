import { useQueryClient } from '@tanstack/vue-query'
import { ref, shallowRef, watch, type Ref } from 'vue'
import { answer, client, type BenchView, type StateView } from '../api/client'
import { numberedWork } from '../api/work'
import { tellProblem } from '../frame/notices'
import { useTopic } from '../live/live'

interface Frame {
    load: string
    fresh: boolean
    state: StateView
    console: string
}

/** The simulated board of a platform: what is on it, what it shows, and what can be done with it. */
export function useBench(
    id: string,
    revision: Ref<number | undefined>,
    say: (text: string, fresh: boolean) => void,
) {
    const queries = useQueryClient()
    const bench = shallowRef<BenchView>()
    const state = shallowRef<StateView>()
    const busy = ref(false)
    /** Cancels the load under way; missing when there is none. */
    const cancel = shallowRef<() => void>()
    const path = { params: { path: { id } } }
    let shown: string | undefined
    let waiting = ''
    let sending = false
    const changes = new Map<string, () => Promise<unknown>>()
    const changing = new Set<string>()

    async function attempt(action: () => Promise<unknown>): Promise<void> {
        try {
            await action()
        } catch (error) {
            tellProblem(error)
        }
    }

    async function look(): Promise<void> {
        bench.value = await answer(client.GET('/api/platforms/{id}/bench', path))
        state.value = bench.value.state ?? undefined
    }

    useTopic(`bench=${id}`, (name, data) => {
        if (name === 'unloaded') {
            shown = undefined
            if (bench.value?.loaded) {
                void attempt(look)
            }
            return
        }
        const frame = data as unknown as Frame
        state.value = frame.state
        if (frame.console || frame.fresh) {
            say(frame.console, frame.fresh)
        }
        // Put on the bench anew, perhaps in another tab: other blocks, another program.
        if (shown !== frame.load) {
            shown = frame.load
            void attempt(look)
        }
    })

    /**
     * Loads a program for a processor; without one, for that which starts where the program begins.
     *
     * @returns whether it is on the bench
     */
    async function load(
        program: string,
        processor?: string,
        beside: { processor: string; program: string }[] = [],
        checked = false,
    ): Promise<boolean> {
        busy.value = true
        const work = numberedWork()
        let isCancelled = false
        let isLoaded = false
        cancel.value = () => {
            isCancelled = true
            work.cancel()
        }
        try {
            bench.value = await answer(
                client.POST('/api/platforms/{id}/bench', {
                    params: { path: { id }, query: { work: work.number } },
                    body: { program, processor, beside, checked },
                }),
            )
            state.value = bench.value.state ?? undefined
            isLoaded = true
        } catch (error) {
            if (!isCancelled) {
                tellProblem(error)
            }
        }
        cancel.value = undefined
        await queries.invalidateQueries({ queryKey: ['bench-registers', id] })
        busy.value = false
        return isLoaded
    }

    const act = (action: 'run' | 'pause' | 'step' | 'reset'): Promise<void> =>
        attempt(async () => {
            state.value = await answer(
                client.POST('/api/platforms/{id}/bench/{action}', { params: { path: { id, action } } }),
            )
            await queries.invalidateQueries({ queryKey: ['bench-registers', id] })
        })

    /** Sends what was typed, in order: while a request is under way, more is gathered for the next. */
    async function type(text: string): Promise<void> {
        waiting += text
        while (waiting && !sending) {
            const part = waiting.slice(0, 4096)
            waiting = waiting.slice(part.length)
            sending = true
            await attempt(() =>
                answer(client.POST('/api/platforms/{id}/bench/console', { ...path, body: { text: part } })),
            )
            sending = false
        }
    }

    async function move(part: string, line: number, high: boolean): Promise<boolean> {
        try {
            await answer(
                client.POST('/api/platforms/{id}/bench/parts/{part}', {
                    params: { path: { id, part } },
                    body: { line, high },
                }),
            )
            return true
        } catch (error) {
            tellProblem(error)
            return false
        }
    }

    const outside = (part: string, change: () => Promise<unknown>): void =>
        void attempt(async () => {
            // Only the newest change of a part counts: a slider sends many.
            changes.set(part, change)
            if (changing.has(part)) {
                return
            }
            changing.add(part)
            try {
                for (let next = changes.get(part); next; next = changes.get(part)) {
                    changes.delete(part)
                    await next()
                }
            } finally {
                changing.delete(part)
            }
        })

    const setVoltage = (part: string, channel: number, volts: number): void =>
        outside(`${part}.${channel}`, () =>
            answer(
                client.POST('/api/platforms/{id}/bench/parts/{part}/voltage', {
                    params: { path: { id, part } },
                    body: { channel, volts },
                }),
            ),
        )

    const setSignal = (part: string, shape: string): void =>
        outside(part, () =>
            answer(
                client.POST('/api/platforms/{id}/bench/parts/{part}/signal', {
                    params: { path: { id, part } },
                    body: { shape },
                }),
            ),
        )

    const setSamples = (part: string, table: string): void =>
        outside(part, () =>
            answer(
                client.POST('/api/platforms/{id}/bench/parts/{part}/samples', {
                    params: { path: { id, part } },
                    body: table,
                    bodySerializer: (text: string) => text,
                    headers: { 'Content-Type': 'text/plain' },
                }),
            ),
        )

    const setReception = (part: string, on: boolean): void =>
        outside(part, () =>
            answer(
                client.POST('/api/platforms/{id}/bench/parts/{part}/reception', {
                    params: { path: { id, part } },
                    body: { on },
                }),
            ),
        )

    const setActing = (kind: string, on: boolean): void =>
        outside(kind, () =>
            answer(
                client.POST('/api/platforms/{id}/bench/surroundings/{kind}', {
                    params: { path: { id, kind } },
                    body: { on },
                }),
            ),
        )

    watch(revision, () => void attempt(look))
    void attempt(look)

    return {
        bench,
        state,
        busy,
        cancel,
        load,
        act,
        type,
        move,
        setVoltage,
        setSignal,
        setSamples,
        setReception,
        setActing,
    }
}
