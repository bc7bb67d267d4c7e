import { reactive, watch } from 'vue'
import type { StateView } from '../api/client'

type Levels = StateView['parts']

/**
 * What hands do to switches and buttons. A line shows where it was put at once, until the board says the same; so
 * a second press does not start from what the board said before the first.
 */
export function useHands(
    levels: () => Levels,
    move: (part: string, line: number, high: boolean) => Promise<boolean>,
) {
    const put = reactive(new Map<string, boolean>())
    let last: Promise<unknown> = Promise.resolve()

    function onBoard(part: string, line: number): boolean {
        const level = levels().find((each) => each.part === part)
        return (((level?.levels ?? 0) >>> line) & 1) === 1
    }

    const isHigh = (part: string, line: number): boolean =>
        put.get(`${part} ${String(line)}`) ?? onBoard(part, line)

    function set(part: string, line: number, high: boolean): void {
        if (isHigh(part, line) === high) {
            return
        }
        const key = `${part} ${String(line)}`
        put.set(key, high)
        // One after the other: a release must not overtake its press.
        last = last.then(async () => {
            if (!(await move(part, line, high))) {
                put.delete(key)
            }
        })
    }

    const flip = (part: string, line: number): void => set(part, line, !isHigh(part, line))

    const held = new Set<string>()

    /** Presses a button; one that is held stays pressed until it is pressed again. */
    function press(part: string, line: number, holds: boolean): void {
        const key = `${part} ${String(line)}`
        const wasHeld = held.delete(key)
        if (wasHeld && holds) {
            set(part, line, false)
            return
        }
        if (holds) {
            held.add(key)
        }
        set(part, line, true)
    }

    function release(part: string, line: number): void {
        if (!held.has(`${part} ${String(line)}`)) {
            set(part, line, false)
        }
    }

    watch(levels, () => {
        for (const [key, high] of put) {
            const [part = '', line] = key.split(' ')
            if (onBoard(part, Number(line)) === high) {
                put.delete(key)
            }
        }
    })

    return { isHigh, set, flip, press, release }
}
