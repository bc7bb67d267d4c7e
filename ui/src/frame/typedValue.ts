import { ref, watch } from 'vue'

/**
 * A value that is typed: written on Enter or when the field is left, once; Escape goes back. What is being typed is
 * not overwritten when the value changes by itself, and a refused value does not stay in the field.
 *
 * @param write writes the text; false when it was refused
 * @param onlyOnEnter the value has effects when it is written: leaving the field writes nothing, and Enter writes
 *     the same value again
 */
export function useTypedValue(
    value: () => string,
    write: (text: string) => Promise<boolean>,
    onlyOnEnter: () => boolean = () => false,
) {
    const text = ref(value())
    /** What the field holds when nobody has typed since: the value, or what was accepted and does not show yet. */
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

    function reset(): void {
        text.value = settled
    }

    async function commit(entered: boolean): Promise<void> {
        const wanted = text.value.trim()
        if (wanted === underWay) {
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
