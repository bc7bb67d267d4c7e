import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { createApp, defineComponent, ref } from 'vue'

vi.mock('../live/live', () => ({ useTopic: () => undefined }))
const post = vi.fn()
vi.mock('../api/client', async (original) => ({
    ...(await original<object>()),
    answer: (asked: Promise<unknown>) => asked,
    client: { POST: post, GET: () => Promise.resolve({ loaded: false }) },
}))
const told = vi.fn()
vi.mock('../frame/notices', () => ({ tellProblem: told }))
const { useBench } = await import('./bench')

function bench(): ReturnType<typeof useBench> {
    const made: ReturnType<typeof useBench>[] = []
    const app = createApp(
        defineComponent(() => {
            made.push(useBench('p', ref(1), () => undefined))
            return () => []
        }),
    )
    app.use(VueQueryPlugin, { queryClient: new QueryClient() })
    app.mount(document.createElement('div'))
    return made[0] as ReturnType<typeof useBench>
}

describe('loading a bench', () => {
    const ended = vi.fn(() => Promise.resolve())
    beforeEach(() => vi.stubGlobal('fetch', ended))
    afterEach(() => {
        vi.unstubAllGlobals()
        vi.clearAllMocks()
    })

    it('says whether the program is on it', async () => {
        post.mockResolvedValueOnce({ loaded: true, state: { mode: 'paused' } })
        const one = bench()
        expect(await one.load('program')).toBe(true)
        expect(one.cancel.value).toBeUndefined()
        post.mockRejectedValueOnce(new Error('no'))
        expect(await one.load('program')).toBe(false)
        expect(told).toHaveBeenCalledOnce()
        expect(one.busy.value).toBe(false)
    })

    it('is cancelled by its number, and says nothing then', async () => {
        let fail: (why: Error) => void = () => undefined
        post.mockReturnValueOnce(new Promise((_done, reject) => (fail = reject)))
        const one = bench()
        const loading = one.load('program')
        one.cancel.value?.()
        const sent = (post.mock.calls[0]?.[1] as { params: { query: { work: string } } }).params.query.work
        expect(ended).toHaveBeenCalledWith(`/api/work/${sent}`, { method: 'DELETE' })
        fail(new Error('it was cancelled'))
        expect(await loading).toBe(false)
        expect(told).not.toHaveBeenCalled()
    })
})
