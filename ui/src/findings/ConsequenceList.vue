<script setup lang="ts">
import type { ConsequenceView } from '../api/client'
import { gradeText } from './gradeColours'
import { vScrolls } from '../frame/scrolls'

/** Findings that a change would make, for a look before it happens. */
withDefaults(defineProps<{ consequences: ConsequenceView[] | undefined; title?: string }>(), {
    title: 'New findings after this change',
})
</script>

<template>
    <section v-if="consequences?.length" class="mt-3" :aria-label="title">
        <h3 class="heading">{{ title }}</h3>
        <ul v-scrolls class="mt-1 max-h-40 overflow-auto text-[14px]">
            <li
                v-for="each in consequences"
                :key="each.subject + each.what"
                class="grid grid-cols-[80px_1fr] border-b border-line py-1"
            >
                <span class="font-semibold" :class="gradeText(each.grade)">{{ each.grade }}</span>
                <span>{{ each.what }}</span>
            </li>
        </ul>
    </section>
</template>
