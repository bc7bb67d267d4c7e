<script setup lang="ts">
import { nextTick, ref } from 'vue'

const props = defineProps<{ value: string; label: string }>()
const emit = defineEmits<{ change: [name: string] }>()
const editing = ref(false)
const text = ref('')
const field = ref<HTMLInputElement>()

async function begin(): Promise<void> {
    text.value = props.value
    editing.value = true
    await nextTick()
    field.value?.focus()
    field.value?.select()
}

function finish(): void {
    if (editing.value && text.value.trim() && text.value !== props.value) {
        emit('change', text.value.trim())
    }
    editing.value = false
}
defineExpose({ begin })
</script>

<template>
    <input
        v-if="editing"
        ref="field"
        v-model="text"
        class="input min-w-0 font-[inherit]"
        :aria-label="label"
        @keydown.enter="finish"
        @keydown.esc.stop="editing = false"
        @blur="finish"
    />
    <button
        v-else
        class="truncate rounded px-1 text-left hover:bg-sunken"
        :title="`${label}: change`"
        @click="begin"
    >
        {{ value }}
    </button>
</template>
