<script setup lang="ts">
import { usePlatform } from '../frame/platform'
import BlockInspector from './BlockInspector.vue'
import { useBlockSheet } from './blockSheet'

/** The inspector of a block, as soon as everything about it is read. */
const props = defineProps<{ name: string }>()
const { sheet, failed, again } = useBlockSheet(usePlatform(), () => props.name)
</script>

<template>
    <BlockInspector v-if="sheet" :block="sheet" />
    <aside
        v-else
        class="w-[336px] shrink-0 max-[1000px]:w-[270px] border-l border-line bg-sheet p-4 text-soft"
        aria-label="Inspector"
        :aria-busy="!failed"
    >
        <h2 class="px-1 text-xl font-semibold text-ink">{{ name }}</h2>
        <template v-if="failed">
            <p class="mt-2 px-1">It cannot be read now: the server does not answer.</p>
            <button class="button mt-2" @click="again">Try again</button>
        </template>
    </aside>
</template>
