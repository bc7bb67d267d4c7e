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
    let focused = false
    let underWay: string | undefined
    /** What was accepted but does not show yet: the value is read again a moment later. */
    let accepted: string | undefined

    watch(value, (changed) => {
        if (!focused || text.value.trim() === accepted) {
            text.value = changed
        }
        accepted = undefined
    })

    function reset(): void {
        accepted = undefined
        text.value = value()
    }

    async function commit(entered: boolean): Promise<void> {
        const wanted = text.value.trim()
        if (wanted === underWay || (wanted === accepted && !entered)) {
            return
        }
        if (!wanted || (onlyOnEnter() ? !entered : wanted === value())) {
            reset()
            return
        }
        underWay = wanted
        const before = value()
        const done = await write(wanted)
        underWay = undefined
        if (done && !onlyOnEnter() && value() === before) {
            accepted = wanted
        } else if (text.value.trim() === wanted) {
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
