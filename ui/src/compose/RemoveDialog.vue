<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { Selection } from './selection'

defineProps<{ selection: Selection }>()
</script>

<template>
    <Dialog :open="selection.removal.value !== undefined" class="relative z-40" @close="selection.keep">
        <div class="fixed inset-0 bg-black/20" aria-hidden="true"></div>
        <div class="fixed inset-0 flex items-start justify-center pt-24">
            <DialogPanel
                v-if="selection.removal.value"
                class="sheet flex max-h-[70vh] w-[620px] flex-col p-5 shadow-xl"
            >
                <DialogTitle class="text-lg font-semibold">
                    Remove {{ selection.removal.value.names.join(', ') }}?
                </DialogTitle>
                <p class="mt-1 text-soft">Something depends on it. After that:</p>
                <ul class="mt-2 min-h-0 flex-1 overflow-auto">
                    <li
                        v-for="each in selection.removal.value.consequences"
                        :key="each.subject + each.what"
                        class="grid grid-cols-[80px_1fr] border-b border-line py-1"
                    >
                        <span
                            class="font-semibold"
                            :class="each.grade === 'error' ? 'text-error' : 'text-warn'"
                            >{{ each.grade }}</span
                        >
                        <span>{{ each.what }}</span>
                    </li>
                </ul>
                <div class="mt-4 flex justify-end gap-2">
                    <button class="button" @click="selection.keep">Keep</button>
                    <button class="button-main" @click="selection.confirmRemoval">Remove</button>
                </div>
            </DialogPanel>
        </div>
    </Dialog>
</template>
