import { afterEach, expect, test, vi } from 'vitest'
import { ref } from 'vue'
import { useBlockTrial } from './blockTrial'

afterEach(() => {
    vi.unstubAllGlobals()
})

function answers(...bodies: unknown[]): ReturnType<typeof vi.fn> {
    const stub = vi.fn((_path: string, options: { method?: string; signal?: AbortSignal }) => {
        const body = bodies.shift()
        return new Promise((resolve, reject) => {
            options.signal?.addEventListener('abort', () => {
                reject(new Error('aborted'))
            })
            if (body !== undefined) {
                resolve({ ok: true, json: () => Promise.resolve(body) })
            }
        })
    })
    vi.stubGlobal('fetch', stub)
    return stub
}

test('an outcome is that of the text it was found with', async () => {
    answers({ words: 1 })
    const text = ref('one')
    const trial = useBlockTrial<{ words: number }>('/trial', () => text.value)
    expect(trial.isCurrent.value).toBe(false)
    await trial.run()
    expect(trial.outcome.value).toEqual({ words: 1 })
    expect(trial.isCurrent.value).toBe(true)
    text.value = 'another'
    expect(trial.isCurrent.value).toBe(false)
    expect(trial.outcome.value).toEqual({ words: 1 })
})

test('a block of the library is fetched first', async () => {
    const stub = answers({ words: 2 })
    const trial = useBlockTrial(
        '/trial',
        () => undefined,
        () => Promise.resolve('kept'),
    )
    await trial.run()
    const sent = (stub.mock.calls[0]?.[1] as { body: Blob }).body
    expect(await sent.text()).toBe('kept')
    expect(trial.isCurrent.value).toBe(true)
})

test('one that is cancelled changes nothing and says nothing', async () => {
    const stub = answers({ words: 1 }, undefined)
    const trial = useBlockTrial('/trial', () => 'text')
    await trial.run()
    const second = trial.run()
    expect(trial.cancel.value).toBeDefined()
    await Promise.resolve()
    trial.cancel.value?.()
    await second
    const [sent, ended] = stub.mock.calls.slice(1).map(([path, options]) => [path, options.method] as const)
    const number = /^\/trial\?work=([0-9a-f-]{36})$/.exec(sent?.[0] as string)?.[1]
    expect(ended).toEqual([`/api/work/${String(number)}`, 'DELETE'])
    expect(trial.cancel.value).toBeUndefined()
    expect(trial.outcome.value).toEqual({ words: 1 })
})
