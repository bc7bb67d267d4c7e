<script setup lang="ts">
import { useId } from 'vue'
import { bareDigits } from '../frame/bareDigits'
import RefusedValue from '../frame/RefusedValue.vue'
import { useTypedValue } from '../frame/typedValue'

const props = defineProps<{
    label: string
    value: string
    /** Writes what was typed; the reason when it was refused, or false when that was said elsewhere. */
    write: (text: string) => Promise<boolean | string>
    hideLabel?: boolean
    placeholder?: string
    /** The value has effects when it is written: only Enter writes it, and then also the same one again. */
    onlyOnEnter?: boolean
    /** It is an address: digits without a prefix are asked about before they are taken as decimal. */
    address?: boolean
}>()
/** What was asked about; written as decimal when it is entered again. */
let asked: string | undefined
function ask(typed: string): Promise<boolean | string> {
    const question = props.address && asked !== typed ? bareDigits(typed) : undefined
    asked = question ? typed : undefined
    return question ? Promise.resolve(question) : props.write(typed)
}
const { text, refused, reset, enter, focus, leave } = useTypedValue(
    () => props.value,
    ask,
    () => props.onlyOnEnter,
)
const reason = useId()
</script>

<template>
    <div>
        <label class="grid items-center py-0.5" :class="hideLabel ? '' : 'grid-cols-[96px_1fr]'">
            <span :class="{ 'sr-only': hideLabel }">{{ label }}</span>
            <input
                v-model="text"
                class="input w-full font-mono text-[13px]"
                :class="{ '!border-error': refused }"
                spellcheck="false"
                :aria-invalid="refused !== undefined"
                :aria-describedby="refused ? reason : undefined"
                :placeholder="placeholder"
                @keydown.enter="enter"
                @keydown.esc.stop="reset"
                @focus="focus"
                @blur="leave"
            />
        </label>
        <RefusedValue :id="reason" :reason="refused" />
    </div>
</template>
