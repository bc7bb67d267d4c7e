import { onScopeDispose, ref, watch } from 'vue'
import { answer, client } from '../api/client'

const WAIT_MILLIS = 250

interface Preview {
    changes: string[]
    breaks: { grade: string; subject: string; what: string }[]
    /** Why the value is not possible. */
    problem?: string | null
}

/**
 * What a value that is being typed would change, requested when the typing rests.
 *
 * @param typed the value, or undefined when nothing is to be shown
 */
export function usePreview(
    platform: string,
    block: () => string,
    parameter: () => string,
    typed: () => string | undefined,
) {
    const preview = ref<Preview>()
    let timer: number | undefined
    let asked = 0

    async function ask(value: string): Promise<void> {
        const number = ++asked
        let result: Preview
        try {
            result = await answer(
                client.GET('/api/platforms/{id}/preview', {
                    params: {
                        path: { id: platform },
                        query: { block: block(), parameter: parameter(), value },
                    },
                }),
            )
        } catch (error) {
            result = {
                changes: [],
                breaks: [],
                problem: error instanceof Error ? error.message : String(error),
            }
        }
        if (number === asked) {
            preview.value = result
        }
    }

    watch(typed, (value) => {
        window.clearTimeout(timer)
        asked++
        if (value === undefined) {
            preview.value = undefined
        } else {
            timer = window.setTimeout(() => void ask(value), WAIT_MILLIS)
        }
    })
    onScopeDispose(() => window.clearTimeout(timer))
    return preview
}
