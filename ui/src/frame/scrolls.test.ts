import { afterEach, describe, expect, it, vi } from 'vitest'
import { createApp, defineComponent, h, nextTick, ref, withDirectives } from 'vue'
import { vScrolls } from './scrolls'

const resized: (() => void)[] = []
let left = 0

class Sizes {
    constructor(private readonly heard: () => void) {}
    observe() {
        resized.push(this.heard)
    }
    disconnect() {
        left++
    }
}

/** A part of 100 pixels; jsdom has no layout, so its content says how high it is. */
function part(height: number) {
    vi.stubGlobal('ResizeObserver', Sizes)
    const waits = ref(true)
    const shown = ref(true)
    const host = document.createElement('div')
    document.body.append(host)
    const all = { height, waits, shown, host, scrolls: () => host.querySelector('aside')?.tabIndex === 0 }
    const sizes = {
        scrollHeight: () => all.height,
        clientHeight: () => 100,
        scrollWidth: () => 50,
        clientWidth: () => 50,
    }
    for (const [name, get] of Object.entries(sizes)) {
        vi.spyOn(HTMLElement.prototype, name as 'scrollHeight', 'get').mockImplementation(get)
    }
    createApp(
        defineComponent(
            () => () =>
                shown.value
                    ? withDirectives(
                          h('aside', [h('p', 'text'), h('button', { disabled: waits.value }, 'Compile')]),
                          [[vScrolls]],
                      )
                    : [],
        ),
    ).mount(host)
    return all
}

async function settled() {
    await nextTick()
    await new Promise((after) => setTimeout(after))
}

afterEach(() => {
    vi.restoreAllMocks()
    vi.unstubAllGlobals()
    resized.length = 0
    document.body.replaceChildren()
})

describe('a part that scrolls', () => {
    it('takes the keyboard while nothing in it does', async () => {
        const long = part(300)
        expect(long.scrolls()).toBe(true)
        long.waits.value = false
        await settled()
        expect(long.scrolls()).toBe(false)
        long.waits.value = true
        await settled()
        expect(long.scrolls()).toBe(true)
    })

    it('is no stop while all of it can be seen', () => {
        const short = part(80)
        expect(short.scrolls()).toBe(false)
        short.height = 300
        resized.forEach((hear) => hear())
        expect(short.scrolls()).toBe(true)
    })

    it('is left alone once it is gone', async () => {
        const long = part(300)
        const before = left
        long.shown.value = false
        await settled()
        expect(left).toBe(before + 1)
    })
})
