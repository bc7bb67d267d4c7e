<script setup lang="ts">
import { ref, watch } from 'vue'

const props = defineProps<{ label: string; value: string; hideLabel?: boolean }>()
const emit = defineEmits<{ change: [text: string] }>()
const text = ref(props.value)

watch(
    () => props.value,
    (value) => (text.value = value),
)

function commit(): void {
    const wanted = text.value.trim()
    if (wanted && wanted !== props.value) {
        emit('change', wanted)
    } else {
        text.value = props.value
    }
}
</script>

<template>
    <label class="grid items-center py-0.5" :class="hideLabel ? '' : 'grid-cols-[96px_1fr]'">
        <span :class="{ 'sr-only': hideLabel }">{{ label }}</span>
        <input
            v-model="text"
            class="input w-full font-mono text-[13px]"
            spellcheck="false"
            @keydown.enter="commit"
            @keydown.esc.stop="text = value"
            @blur="commit"
        />
    </label>
</template>
