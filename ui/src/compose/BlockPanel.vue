<script setup lang="ts">
import { usePlatform } from '../frame/platform'
import BlockInspector from './BlockInspector.vue'
import { useBlockSheet } from './blockSheet'

/** The inspector of a block, as soon as everything about it is read. */
const props = defineProps<{ name: string }>()
const sheet = useBlockSheet(usePlatform(), () => props.name)
</script>

<template>
    <BlockInspector v-if="sheet" :block="sheet" />
    <aside
        v-else
        class="w-[336px] shrink-0 border-l border-line bg-sheet p-4 text-soft"
        aria-label="Inspector"
        aria-busy="true"
    >
        <h2 class="px-1 text-xl font-semibold text-ink">{{ name }}</h2>
    </aside>
</template>
