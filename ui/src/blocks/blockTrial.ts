import { computed, shallowRef, type ComputedRef, type ShallowRef } from 'vue'
import { upload } from '../api/client'
import { numberedWork } from '../api/work'
import { tellProblem } from '../frame/notices'

/** Something that is tried with the text of a block's document on request, takes some seconds, and can be cancelled. */
export interface BlockTrial<T> {
    /** What the last trial found; missing before the first. */
    outcome: ShallowRef<T | undefined>
    /** Cancels the trial under way; missing when there is none. */
    cancel: ShallowRef<(() => void) | undefined>
    /** Whether the outcome is that of the text as it is now. */
    isCurrent: ComputedRef<boolean>
    run: () => Promise<void>
}

/**
 * @param path where the document is sent to
 * @param text the document as it is now; undefined where it is kept on the server, and does not change here
 * @param load gets it from there
 */
export function useBlockTrial<T>(
    path: string,
    text: () => string | undefined,
    load: () => Promise<string> = () => Promise.resolve(''),
): BlockTrial<T> {
    const outcome = shallowRef<T>()
    const of = shallowRef<string>()
    const cancel = shallowRef<() => void>()

    async function run(): Promise<void> {
        const control = new AbortController()
        const work = numberedWork()
        cancel.value = () => {
            control.abort()
            work.cancel()
        }
        try {
            const sent = text() ?? (await load())
            outcome.value = await upload<T>(`${path}?work=${work.number}`, new Blob([sent]), control.signal)
            of.value = sent
        } catch (problem) {
            if (!control.signal.aborted) {
                tellProblem(problem)
            }
        } finally {
            cancel.value = undefined
        }
    }

    const isCurrent = computed(
        () => outcome.value !== undefined && (text() === undefined || text() === of.value),
    )
    return { outcome, cancel, isCurrent, run }
}

export const counted = (number: number, what: string): string =>
    `${String(number)} ${what}${number === 1 ? '' : 's'}`
