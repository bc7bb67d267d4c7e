<script setup lang="ts">
import { vScrolls } from '../frame/scrolls'

/** What was noticed in memory since the program was loaded. */
defineProps<{ notices: string[] }>()
</script>

<template>
    <section class="sheet p-3" aria-label="Memory check">
        <h2 class="text-[13px] font-semibold">Memory check</h2>
        <p v-if="notices.length === 0" class="mt-1 text-[13px] text-soft">
            Nothing is wrong so far: all that was read had been written, and what blocks moved was in place.
        </p>
        <ul v-else v-scrolls class="mt-1 max-h-40 overflow-y-auto text-[13px]">
            <li v-for="notice in notices" :key="notice" class="py-0.5 font-mono text-[12px] text-warn">
                {{ notice }}
            </li>
        </ul>
    </section>
</template>
