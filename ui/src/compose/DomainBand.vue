<script setup lang="ts">
import { computed } from 'vue'
import type { BusView } from '../api/client'
import BusRail from './BusRail.vue'
import { domainColour } from './domainColours'
import { usePlatform } from '../frame/platform'
import { usePicture } from './picture'

const props = defineProps<{
    name: string
    frequency: string
    index: number
    buses: BusView[]
    width: number
}>()
const { net } = usePicture()
const context = usePlatform()

const colour = computed(() => domainColour(props.index))
</script>

<template>
    <div
        class="relative mb-3 min-h-24 rounded-r border-l-4 py-3 pr-3 pl-9"
        :class="{ 'ring-2 ring-accent': net === `clock ${name}` }"
        :style="{ borderColor: colour, background: `color-mix(in srgb, ${colour} 9%, transparent)` }"
    >
        <button
            class="absolute inset-y-0 left-1 w-6 text-[12px] font-semibold whitespace-nowrap"
            style="writing-mode: vertical-rl; transform: rotate(180deg)"
            :aria-label="`Clock domain ${name}, ${frequency}`"
            @click="context.selected.value = `domain ${name}`"
            @mouseenter="net = `clock ${name}`"
            @mouseleave="net = undefined"
            @focus="net = `clock ${name}`"
            @blur="net = undefined"
        >
            {{ name }}{{ frequency ? ` · ${frequency}` : '' }}
        </button>
        <p v-if="buses.length === 0" class="py-6 text-soft">No bus runs in this clock domain.</p>
        <BusRail v-for="bus in buses" :key="bus.name" :bus="bus" :width="width - 52" />
    </div>
</template>
