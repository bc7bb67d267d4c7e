<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { isDialogOpen, isTyping } from './actions'

/**
 * Finds in a table, also in rows that are not drawn: Ctrl F and / come here instead of the browser's own find, which could only
 * see some of them. Ctrl F in the field itself is the browser's own.
 */
defineProps<{ label: string; found?: number; all?: number }>()
const text = defineModel<string>({ required: true })
const field = ref<HTMLInputElement>()

function onKey(event: KeyboardEvent): void {
    const finds = (event.ctrlKey || event.metaKey) && event.key === 'f'
    const slash = event.key === '/' && !event.ctrlKey && !event.metaKey && !isTyping(event)
    if ((finds || slash) && !isDialogOpen() && document.activeElement !== field.value) {
        event.preventDefault()
        field.value?.focus()
        field.value?.select()
    }
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
    <span class="inline-flex items-center gap-2">
        <input
            ref="field"
            v-model="text"
            type="search"
            class="input w-44 !py-0.5"
            placeholder="Find"
            :aria-label="label"
            :title="`${label} (Ctrl F)`"
            @keydown.esc.stop="text = ''"
        />
        <span v-if="text && found !== undefined" class="text-[13px] whitespace-nowrap text-soft" role="status"
            >{{ found }} of {{ all }}</span
        >
    </span>
</template>
