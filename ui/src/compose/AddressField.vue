<script setup lang="ts">
import { ref, watch } from 'vue'

const props = defineProps<{
    label: string
    value: string
    hideLabel?: boolean
    placeholder?: string
    /** The value has effects when it is written: only Enter writes it, and then also the same one again. */
    onlyOnEnter?: boolean
}>()
const emit = defineEmits<{ change: [text: string] }>()
const text = ref(props.value)

// A value that changes by itself must not overwrite what is being typed.
const focused = ref(false)
watch(
    () => props.value,
    (value) => {
        if (!focused.value) {
            text.value = value
        }
    },
)

function commit(entered: boolean): void {
    const wanted = text.value.trim()
    const writes = props.onlyOnEnter ? entered : wanted !== props.value
    if (wanted && writes) {
        emit('change', wanted)
    } else {
        text.value = props.value
    }
}

function leave(): void {
    focused.value = false
    commit(false)
}
</script>

<template>
    <label class="grid items-center py-0.5" :class="hideLabel ? '' : 'grid-cols-[96px_1fr]'">
        <span :class="{ 'sr-only': hideLabel }">{{ label }}</span>
        <input
            v-model="text"
            class="input w-full font-mono text-[13px]"
            spellcheck="false"
            :placeholder="placeholder"
            @keydown.enter="commit(true)"
            @keydown.esc.stop="text = value"
            @focus="focused = true"
            @blur="leave"
        />
    </label>
</template>
