import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import { answersFor } from './answersFor'

/** Answers that come when the test says so. */
function slow(): { ask: (text: string) => Promise<string[]>; come: (text: string) => Promise<void> } {
    const open = new Map<string, (answer: string[]) => void>()
    return {
        ask: (text) => new Promise((resolve) => open.set(text, resolve)),
        come: async (text) => {
            open.get(text)?.([`answer to ${text}`])
            await new Promise((resolve) => setTimeout(resolve))
        },
    }
}

describe('answers while a text is typed', () => {
    it('are never those to an earlier text, in whichever order they come', async () => {
        const text = ref('')
        const server = slow()
        const { answers, waiting } = answersFor(text, [server.ask])
        text.value = 're'
        await server.come('re')
        expect(answers.value).toEqual(['answer to re'])
        text.value = 'ren'
        expect(answers.value).toEqual([])
        text.value = 'rena'
        await server.come('rena')
        await server.come('ren')
        expect(answers.value).toEqual(['answer to rena'])
        expect(waiting.value).toBe(false)
    })

    it('stand in the order of the questions, and one that fails or has nothing to say does not hold up the others', async () => {
        const text = ref('')
        const server = slow()
        const { answers, waiting } = answersFor(text, [
            server.ask,
            () => Promise.reject(new Error('no network')),
            () => undefined,
            (asked) => Promise.resolve([`at once ${asked}`]),
        ])
        text.value = ' uart '
        expect(waiting.value).toBe(true)
        await new Promise((resolve) => setTimeout(resolve))
        expect(answers.value).toEqual(['at once uart'])
        expect(waiting.value).toBe(true)
        await server.come('uart')
        expect(answers.value).toEqual(['answer to uart', 'at once uart'])
        expect(waiting.value).toBe(false)
    })
})
