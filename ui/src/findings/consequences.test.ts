import { afterEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, shallowRef } from 'vue'
import type { Edit } from '../api/client'
import type { PlatformContext } from '../frame/platform'

const rename = (name: string) => ({ edit: 'rename-platform', name }) as unknown as Edit

/** Node's requests want whole addresses; a browser takes them from the page. */
class Whole extends Request {
    constructor(input: string | URL | Request, init?: RequestInit) {
        super(typeof input === 'string' ? new URL(input, 'http://127.0.0.1') : input, init)
    }
}

/** A server whose answers come when the test says so, by the name in the edit. */
function slowServer(): (name: string, what: string) => Promise<void> {
    const open = new Map<string, (answer: Response) => void>()
    vi.stubGlobal('Request', Whole)
    vi.stubGlobal('fetch', async (request: Request) => {
        const { edit } = (await request.json()) as { edit: { name: string } }
        return new Promise<Response>((resolve) => open.set(edit.name, resolve))
    })
    return async (name, what) => {
        await vi.waitFor(() => {
            expect(open.has(name)).toBe(true)
        })
        const finding = { grade: 'error', subject: 'x', what }
        open.get(name)?.(Response.json([finding, { ...finding, grade: 'note' }]))
        await new Promise((resolve) => setTimeout(resolve, 10))
    }
}

afterEach(() => {
    vi.unstubAllGlobals()
})

describe('consequences of an edit that is looked at', () => {
    it('are unknown until the first answer, and stay until the next one', async () => {
        const come = slowServer()
        vi.resetModules()
        const { useConsequences } = await import('./consequences')
        const edit = shallowRef<Edit | undefined>(rename('a'))
        const context = { id: 'p', platform: ref({ revision: 1 }) } as unknown as PlatformContext
        const scope = effectScope()
        const found = scope.run(() => useConsequences(context, () => edit.value))
        expect(found?.value).toBeUndefined()
        await come('a', 'of a')
        expect(found?.value?.map((each) => each.what)).toEqual(['of a'])
        edit.value = rename('b')
        await nextTick()
        expect(found?.value?.map((each) => each.what)).toEqual(['of a'])
        edit.value = rename('c')
        await nextTick()
        await come('c', 'of c')
        await come('b', 'of b')
        expect(found?.value?.map((each) => each.what)).toEqual(['of c'])
        edit.value = undefined
        await nextTick()
        expect(found?.value).toBeUndefined()
        scope.stop()
    })
})
