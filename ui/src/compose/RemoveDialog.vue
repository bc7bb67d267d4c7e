<script setup lang="ts">
import { computed } from 'vue'
import DialogFrame from '../frame/DialogFrame.vue'
import type { Selection } from './selection'
import { gradeText } from '../findings/gradeColours'

const props = defineProps<{ selection: Selection }>()
const removal = computed(() => props.selection.removal.value)
</script>

<template>
    <DialogFrame
        :open="removal !== undefined"
        :title="`Remove ${removal?.names.join(', ') ?? ''}?`"
        :width="620"
        @close="selection.keep"
    >
        <p class="mt-1 text-soft">Something depends on it. After that:</p>
        <ul class="mt-2 min-h-0 flex-1 overflow-auto">
            <li
                v-for="each in removal?.consequences"
                :key="each.subject + each.what"
                class="grid grid-cols-[80px_1fr] border-b border-line py-1"
            >
                <span class="font-semibold" :class="gradeText(each.grade)">{{ each.grade }}</span>
                <span>{{ each.what }}</span>
            </li>
        </ul>
        <template #buttons>
            <button class="button" @click="selection.keep">Keep</button>
            <button class="button-main" @click="selection.confirmRemoval">Remove</button>
        </template>
    </DialogFrame>
</template>
