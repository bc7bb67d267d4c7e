import { ref, watch } from 'vue'

/**
 * A value that is typed: written on Enter or when the field is left, once; Escape goes back. What is being typed is
 * not overwritten when the value changes by itself. A refused value stays in the field, with the reason, until it is
 * corrected or taken back.
 *
 * @param write writes the text; the reason when it was refused, or false when that was said elsewhere
 * @param onlyOnEnter the value has effects when it is written: leaving the field writes nothing, and Enter writes
 *     the same value again
 */
export function useTypedValue(
    value: () => string,
    write: (text: string) => Promise<boolean | string>,
    onlyOnEnter: () => boolean = () => false,
) {
    const text = ref(value())
    /** Why what the field holds was refused. */
    const refused = ref<string>()
    /** What the field holds when nothing was typed since: the value, or what was accepted and does not show yet. */
    let settled = value()
    let focused = false
    let underWay: string | undefined

    const isTyped = () => text.value.trim() !== settled

    watch(value, (changed) => {
        const keep = focused && isTyped()
        settled = changed
        if (!keep) {
            text.value = changed
        }
    })

    watch(text, () => (refused.value = undefined), { flush: 'sync' })

    function reset(): void {
        text.value = settled
        refused.value = undefined
    }

    async function commit(entered: boolean): Promise<void> {
        const wanted = text.value.trim()
        // What was refused is tried again when Enter is pressed, not when the field is left.
        if (wanted === underWay || (refused.value !== undefined && !entered)) {
            return
        }
        if (!wanted || (onlyOnEnter() ? !entered : !isTyped())) {
            reset()
            return
        }
        underWay = wanted
        const before = settled
        const done = await write(wanted)
        underWay = undefined
        if (typeof done === 'string') {
            if (text.value.trim() === wanted) {
                refused.value = done
            }
            return
        }
        if (text.value.trim() === wanted) {
            // The value is read again a moment after it was accepted.
            if (done && !onlyOnEnter() && settled === before) {
                settled = wanted
            }
            reset()
        }
    }

    return {
        text,
        refused,
        reset,
        enter: (): Promise<void> => commit(true),
        focus: (): void => {
            focused = true
        },
        leave: (): Promise<void> => {
            focused = false
            return commit(false)
        },
    }
}
