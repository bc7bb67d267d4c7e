import type { Directive } from 'vue'

type Field = HTMLInputElement | HTMLTextAreaElement
type Shown = string | number | null | undefined

/** Fields in which something is typed that is not taken yet. */
const typing = new WeakSet<Field>()

const textOf = (value: Shown): string => (value === null || value === undefined ? '' : String(value))

function show(field: Field, value: Shown): void {
    if (!typing.has(field) && field.value !== textOf(value)) {
        field.value = textOf(value)
    }
}

/**
 * Shows a value in a field that takes what is typed when it is left or Enter is pressed, as `v-typed="port.width"` with `@change`.
 * A bound `:value` would put the old value over what is being typed whenever anything else in the component changes.
 */
export const vTyped: Directive<Field, Shown> = {
    mounted(field, { value }) {
        show(field, value)
        field.addEventListener('input', () => typing.add(field))
        const taken = (): void => void typing.delete(field)
        // Before what reacts to the change is drawn.
        field.addEventListener('change', taken, { capture: true })
        field.addEventListener('blur', taken)
    },
    updated(field, { value }) {
        show(field, value)
    },
}
