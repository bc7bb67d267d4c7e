<script setup lang="ts">
import { useTypedValue } from '../frame/typedValue'

const props = defineProps<{
    label: string
    value: string
    /** Writes what was typed; false when it was refused. */
    write: (text: string) => Promise<boolean>
    hideLabel?: boolean
    placeholder?: string
    /** The value has effects when it is written: only Enter writes it, and then also the same one again. */
    onlyOnEnter?: boolean
}>()
const { text, reset, enter, focus, leave } = useTypedValue(
    () => props.value,
    (typed) => props.write(typed),
    () => props.onlyOnEnter,
)
</script>

<template>
    <label class="grid items-center py-0.5" :class="hideLabel ? '' : 'grid-cols-[96px_1fr]'">
        <span :class="{ 'sr-only': hideLabel }">{{ label }}</span>
        <input
            v-model="text"
            class="input w-full font-mono text-[13px]"
            spellcheck="false"
            :placeholder="placeholder"
            @keydown.enter="enter"
            @keydown.esc.stop="reset"
            @focus="focus"
            @blur="leave"
        />
    </label>
</template>
