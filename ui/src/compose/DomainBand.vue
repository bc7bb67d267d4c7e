<script setup lang="ts">
import type { BusView } from '../api/client'
import BusRail from './BusRail.vue'
import { usePicture } from './picture'

const props = defineProps<{
    name: string
    frequency: string
    index: number
    buses: BusView[]
    width: number
}>()
const { net } = usePicture()

/** Okabe and Ito's colours, which people with any colour vision can tell apart; the name always stands beside. */
const COLOURS = ['#56b4e9', '#e69f00', '#009e73', '#cc79a7', '#0072b2', '#d55e00', '#f0e442']
const colour = props.index < 0 ? '#888888' : COLOURS[props.index % COLOURS.length]
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
