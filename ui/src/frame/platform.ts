import { useQuery, useQueryClient } from '@tanstack/vue-query'
import {
    computed,
    inject,
    onScopeDispose,
    provide,
    ref,
    type ComputedRef,
    type InjectionKey,
    type Ref,
} from 'vue'
import { answer, client, type Edit, type EditRequest, type PlatformView, Refusal } from '../api/client'
import { tell, tellProblem } from './notices'

export interface PlatformContext {
    id: string
    platform: ComputedRef<PlatformView | undefined>
    error: Ref<Error | null>
    /** Whether a change is on its way to the store. */
    saving: Ref<boolean>
    /** Whether the server tells about changes of others. */
    connected: Ref<boolean>
    /** Applies an edit to the revision that is shown; true when it was accepted. */
    edit: (edit: Edit) => Promise<boolean>
    undo: () => Promise<boolean>
    redo: () => Promise<boolean>
    /** Name of the selected block or bus, or of one initiator as block.interface. */
    selected: Ref<string | undefined>
    refresh: () => Promise<void>
}

const KEY: InjectionKey<PlatformContext> = Symbol('platform')

/** The platform that is open: read, changed, and kept up to date with what others do. */
export function providePlatform(id: string): PlatformContext {
    const queries = useQueryClient()
    const query = useQuery({
        queryKey: ['platform', id],
        queryFn: () => answer(client.GET('/api/platforms/{id}', { params: { path: { id } } })),
    })
    const platform = computed(() => query.data.value)
    const saving = ref(false)
    const connected = ref(true)
    const selected = ref<string>()

    async function refresh(): Promise<void> {
        await queries.invalidateQueries({ queryKey: ['platform', id] })
    }

    async function change(call: () => Promise<{ revision: number }>): Promise<boolean> {
        saving.value = true
        try {
            await call()
            return true
        } catch (error) {
            tellProblem(error)
            return error instanceof Refusal && error.status === 409 ? false : false
        } finally {
            await refresh()
            saving.value = false
        }
    }

    const path = { params: { path: { id } } }
    const revision = (): number => platform.value?.revision ?? 0
    const context: PlatformContext = {
        id,
        platform,
        error: query.error,
        saving,
        connected,
        selected,
        refresh,
        edit: (edit) =>
            change(() =>
                answer(
                    client.POST('/api/platforms/{id}/edits', {
                        ...path,
                        body: { revision: revision(), edit: edit as unknown as EditRequest['edit'] },
                    }),
                ),
            ),
        undo: () =>
            change(() =>
                answer(client.POST('/api/platforms/{id}/undo', { ...path, body: { revision: revision() } })),
            ),
        redo: () =>
            change(() =>
                answer(client.POST('/api/platforms/{id}/redo', { ...path, body: { revision: revision() } })),
            ),
    }
    follow(context)
    provide(KEY, context)
    return context
}

/** Listens for new revisions; the browser connects again by itself after a break. */
function follow(context: PlatformContext): void {
    const source = new EventSource(`/api/platforms/${context.id}/events`)
    source.addEventListener('hello', () => {
        if (!context.connected.value) {
            context.connected.value = true
            tell('done', 'Connected again', 'What is shown is up to date.')
            void context.refresh()
        }
    })
    source.addEventListener('revision', (event) => {
        const told = (event as MessageEvent<string>).data
        if (!context.saving.value && told !== String(context.platform.value?.revision)) {
            void context.refresh()
        }
    })
    source.onerror = () => {
        context.connected.value = false
    }
    onScopeDispose(() => source.close())
}

export function usePlatform(): PlatformContext {
    const context = inject(KEY)
    if (!context) {
        throw new Error('no platform is open here')
    }
    return context
}
