<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { vScrolls } from './scrolls'

/** A dialog over the page: title, contents, and buttons at the foot. Escape and a click beside it close it. */
withDefaults(defineProps<{ open: boolean; title: string; width?: number }>(), { width: 640 })
const emit = defineEmits<{ close: [] }>()
</script>

<template>
    <Dialog :open="open" class="relative z-40" @close="emit('close')">
        <div class="fixed inset-0 bg-black/20" aria-hidden="true"></div>
        <div class="fixed inset-0 flex items-start justify-center pt-20">
            <DialogPanel
                class="sheet flex max-h-[78vh] flex-col p-5 shadow-xl"
                :style="{ width: `${width}px` }"
            >
                <DialogTitle class="text-lg font-semibold">{{ title }}</DialogTitle>
                <div v-scrolls class="flex min-h-0 flex-1 flex-col overflow-auto"><slot></slot></div>
                <div class="mt-4 flex justify-end gap-2"><slot name="buttons"></slot></div>
            </DialogPanel>
        </div>
    </Dialog>
</template>
