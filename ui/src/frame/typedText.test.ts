import { describe, expect, it } from 'vitest'
import { createApp, defineComponent, h, nextTick, ref, withDirectives } from 'vue'
import { vTyped } from './typedText'

function field(): {
    input: HTMLInputElement
    value: ReturnType<typeof ref<string>>
    other: ReturnType<typeof ref<number>>
    type: (text: string) => void
} {
    const value = ref<string>('old')
    const other = ref(0)
    const host = document.createElement('div')
    document.body.append(host)
    createApp(
        defineComponent(() => () => [
            h('p', other.value),
            withDirectives(
                h('input', {
                    onChange: (event: Event) => {
                        const typed = (event.target as HTMLInputElement).value.trim()
                        value.value = typed === 'refused' ? value.value : typed
                        other.value++
                    },
                }),
                [[vTyped, value.value]],
            ),
        ]),
    ).mount(host)
    const input = host.querySelector('input') as HTMLInputElement
    return {
        input,
        value,
        other,
        type: (text) => {
            input.value = text
            input.dispatchEvent(new Event('input'))
        },
    }
}

describe('a field that takes what is typed at its end', () => {
    it('keeps what is typed while the rest is drawn again, and while its value changes', async () => {
        const { input, value, other, type } = field()
        expect(input.value).toBe('old')
        type('ne')
        other.value = 7
        await nextTick()
        expect(input.value).toBe('ne')
        value.value = 'of another user'
        await nextTick()
        expect(input.value).toBe('ne')
        input.dispatchEvent(new Event('change'))
        expect(value.value).toBe('ne')
    })

    it('shows what became of it: as it is written, or as it was when it was refused', async () => {
        const { input, type } = field()
        type('  new ')
        input.dispatchEvent(new Event('change'))
        await nextTick()
        expect(input.value).toBe('new')
        type('refused')
        input.dispatchEvent(new Event('change'))
        await nextTick()
        expect(input.value).toBe('new')
    })

    it('follows its value where nothing is typed', async () => {
        const { input, value, type, other } = field()
        value.value = 'newer'
        await nextTick()
        expect(input.value).toBe('newer')
        type('begun')
        input.dispatchEvent(new Event('blur'))
        other.value = 3
        await nextTick()
        expect(input.value).toBe('newer')
    })
})
