import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, inject, provide, ref, watch, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import {
    answer,
    client,
    type BlockView,
    type Edit,
    type EditRequest,
    type FindingView,
    type PlatformView,
} from '../api/client'
import { useConnected, useTopic } from '../live/live'
import { randomId } from '../api/author'
import { Refusal } from '../api/client'
import { tell, tellProblem } from './notices'

export interface PlatformContext {
    id: string
    /** Revision that is only looked at; undefined for the newest, which can be changed. */
    at: Ref<number | undefined>
    platform: ComputedRef<PlatformView | undefined>
    error: Ref<Error | null>
    /** Whether a change is on its way to the store. */
    saving: Ref<boolean>
    /** Changes that wait until the server can be reached again. */
    waiting: Ref<number>
    /** Whether the server tells about changes of others. */
    connected: Ref<boolean>
    /** Whether the platform was removed. */
    gone: Ref<boolean>
    /**
     * Applies an edit; true when it was accepted.
     * @param basedOn revision that the edit was worked out for; without it, the one that is shown
     */
    edit: (edit: Edit, basedOn?: number) => Promise<boolean>
    /**
     * The same for a value that is typed: true when it was accepted, otherwise why not, for where it was typed; no
     * notice is shown.
     */
    tryEdit: (edit: Edit) => Promise<true | string>
    undo: () => Promise<boolean>
    redo: () => Promise<boolean>
    /** Puts the content of an earlier revision on top. */
    restore: (number: number) => Promise<boolean>
    /** A block by its name, however many there are. */
    block: (name: string) => BlockView | undefined
    /** The worst finding of a block that is not accepted. */
    finding: (block: string) => FindingView | undefined
    /** Name of the selected block or bus, or of one initiator as block.interface. */
    selected: Ref<string | undefined>
    refresh: () => Promise<void>
    /** Whether changes are out of the question, because an earlier revision is looked at; then it says so. */
    refuses: () => boolean
}

/** Between two tries when nothing is heard of the server. */
const RETRY_MILLIS = 2000

const KEY: InjectionKey<PlatformContext> = Symbol('platform')

/** The platform that is open: read, changed, and kept up to date with what others do. */
export function providePlatform(id: string, at: Ref<number | undefined> = ref()): PlatformContext {
    const queries = useQueryClient()
    const query = useQuery({
        queryKey: ['platform', id, at],
        queryFn: () =>
            answer(client.GET('/api/platforms/{id}', { params: { path: { id }, query: { at: at.value } } })),
        placeholderData: (before: PlatformView | undefined) => before,
    })
    const platform = computed(() => query.data.value)
    const byName = computed(() => new Map(platform.value?.blocks.map((block) => [block.name, block])))
    const byBlock = computed(() => {
        const worst = new Map<string, FindingView>()
        for (const finding of platform.value?.findings ?? []) {
            if (finding.block && !finding.accepted && !worst.has(finding.block)) {
                worst.set(finding.block, finding)
            }
        }
        return worst
    })
    const saving = ref(false)
    const gone = ref(false)
    const connected = useConnected(() => {
        tell('done', 'Connected again', 'What is shown is up to date.')
        void refresh()
    })
    const selected = ref<string>()

    async function refresh(): Promise<void> {
        await queries.invalidateQueries({ queryKey: ['platform', id] })
    }

    // Changes go one after the other, each on what is shown and what those before it have made.
    let last: Promise<unknown> = Promise.resolve()
    let own: number[] = []
    const waiting = ref(0)
    const held = ref(false)
    /** Counts refusals: what was waiting behind a refused change was meant for what was seen before it. */
    let refusals = 0

    function refuses(): boolean {
        if (at.value !== undefined) {
            tell(
                'problem',
                `Revision ${String(at.value)} is read-only`,
                'Go back to it in History to change it.',
            )
        }
        return at.value !== undefined
    }

    /** Until the server is heard of again, or for a while: then it is worth another try. */
    function reachable(): Promise<void> {
        return new Promise((resolve) => {
            const timer = window.setTimeout(go, RETRY_MILLIS)
            const stop = watch(connected, (now) => now && go())
            function go(): void {
                window.clearTimeout(timer)
                stop()
                resolve()
            }
        })
    }

    /** @param own revisions after the one that is shown which the change builds on, since this tab has made them */
    type Call = (revision: number, own: number[]) => Promise<{ revision: number }>

    /** @param again whether it can be sent again when no answer came: then it waits for the server */
    interface Change {
        call: Call
        again: boolean
    }

    function change(call: Change, basedOn?: number): Promise<boolean> {
        return refuses() ? Promise.resolve(false) : queue(call, basedOn, tellProblem)
    }

    async function send(change: Change, seen: number, own: number[]): Promise<{ revision: number }> {
        for (;;) {
            try {
                const made = await change.call(seen, own)
                held.value = false
                return made
            } catch (error) {
                if (!change.again || !(error instanceof Refusal) || error.status !== 0 || gone.value) {
                    held.value = false
                    throw error
                }
                held.value = true
                await reachable()
            }
        }
    }

    /** @param refused is told at once, before the platform is read again */
    function queue(
        call: Change,
        basedOn: number | undefined,
        refused: (error: unknown) => void,
    ): Promise<boolean> {
        const mine = refusals
        waiting.value++
        saving.value = true
        const done = last.then(() => attempt(call, basedOn, mine, refused))
        last = done
        return done
    }

    async function attempt(
        call: Change,
        basedOn: number | undefined,
        mine: number,
        refused: (error: unknown) => void,
    ): Promise<boolean> {
        try {
            if (mine !== refusals) {
                return false
            }
            const seen = basedOn ?? platform.value?.revision ?? 0
            own = own.filter((each) => each > seen)
            own.push((await send(call, seen, basedOn === undefined ? own : [])).revision)
            return true
        } catch (error) {
            refusals++
            refused(error)
            return false
        } finally {
            waiting.value--
            if (waiting.value === 0) {
                await refresh()
                saving.value = waiting.value > 0
            }
        }
    }

    const path = { params: { path: { id } } }
    function posting(edit: Edit): Change {
        const sentAs = randomId()
        return {
            again: true,
            call: (revision, own) =>
                answer(
                    client.POST('/api/platforms/{id}/edits', {
                        ...path,
                        body: { revision, own, sentAs, edit: edit as unknown as EditRequest['edit'] },
                    }),
                ),
        }
    }
    const once = (call: Call): Promise<boolean> => change({ call, again: false })
    const newest = (revision: number, own: number[]): number => Math.max(revision, ...own)
    const context: PlatformContext = {
        id,
        at,
        platform,
        block: (name) => byName.value.get(name),
        finding: (name) => byBlock.value.get(name),
        error: query.error,
        saving,
        waiting: computed(() => (held.value ? waiting.value : 0)),
        connected,
        gone,
        selected,
        refresh,
        refuses,
        edit: (edit, basedOn) => change(posting(edit), basedOn),
        tryEdit: (edit) =>
            refuses()
                ? Promise.resolve('An earlier revision is read-only.')
                : new Promise((resolve) => {
                      const refused = (error: unknown): void =>
                          resolve(error instanceof Error ? error.message : String(error))
                      void queue(posting(edit), undefined, refused).then((done) =>
                          resolve(done || 'Not tried, since a change before it was refused.'),
                      )
                  }),
        undo: () =>
            once((revision, own) =>
                answer(
                    client.POST('/api/platforms/{id}/undo', {
                        ...path,
                        body: { revision: newest(revision, own) },
                    }),
                ),
            ),
        redo: () =>
            once((revision, own) =>
                answer(
                    client.POST('/api/platforms/{id}/redo', {
                        ...path,
                        body: { revision: newest(revision, own) },
                    }),
                ),
            ),
        restore: (number) =>
            once((revision, own) =>
                answer(
                    client.POST('/api/platforms/{id}/revisions/{number}/restore', {
                        params: { path: { id, number } },
                        body: { revision: newest(revision, own) },
                    }),
                ),
            ),
    }
    follow(context)
    provide(KEY, context)
    return context
}

/** Keeps up to date with what others do. */
function follow(context: PlatformContext): void {
    const told = ref<number>()
    useTopic(`platform=${context.id}`, (name, data) => {
        context.gone.value = name === 'gone'
        told.value = name === 'gone' ? undefined : (data as unknown as { revision: number }).revision
    })
    // What is told may come before what it is about has been read.
    watch([told, () => context.platform.value?.revision], ([newest, shown]) => {
        const isBehind = newest !== undefined && shown !== undefined && newest !== shown
        if (isBehind && context.at.value === undefined && !context.saving.value) {
            void context.refresh()
        }
    })
}

export function usePlatform(): PlatformContext {
    const context = inject(KEY)
    if (!context) {
        throw new Error('no platform is open here')
    }
    return context
}
