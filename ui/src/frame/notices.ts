import { reactive } from 'vue'
import { Refusal } from '../api/client'

export interface Notice {
    id: number
    kind: 'done' | 'problem'
    title: string
    text: string
}

const SHOWN_MILLIS = 6000
const PROBLEM_MILLIS = 30_000
let next = 1

/** Messages that come and go: problems stay longer, and one that comes again takes the place of the one before. */
export const notices = reactive<Notice[]>([])

export function dismiss(id: number): void {
    const at = notices.findIndex((notice) => notice.id === id)
    if (at >= 0) {
        notices.splice(at, 1)
    }
}

export function tell(kind: Notice['kind'], title: string, text = ''): void {
    const id = next++
    const same = notices.find((notice) => notice.title === title && notice.text === text)
    if (same) {
        dismiss(same.id)
    }
    notices.push({ id, kind, title, text })
    if (notices.length > 3) {
        notices.shift()
    }
    window.setTimeout(() => dismiss(id), kind === 'done' ? SHOWN_MILLIS : PROBLEM_MILLIS)
}

export function tellProblem(error: unknown): void {
    if (error instanceof Refusal) {
        tell('problem', error.title, error.message)
    } else {
        tell('problem', 'Something went wrong', error instanceof Error ? error.message : String(error))
    }
}

/** Puts a text on the clipboard and says so. */
export async function copy(text: string): Promise<void> {
    await navigator.clipboard.writeText(text)
    tell('done', 'Copied', text)
}
