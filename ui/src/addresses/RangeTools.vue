<script setup lang="ts">
import { ref } from 'vue'
import type { Edit, TargetView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { changeRanges } from './ranges'

const props = defineProps<{ chosen: { bus: string; target: TargetView }[] }>()
const emit = defineEmits<{ clear: [] }>()
const context = usePlatform()
const distance = ref('64K')
const refs = (): string[] => props.chosen.map(({ target }) => `${target.block}.${target.busInterface}`)

function hold(held: boolean): void {
    const edits = props.chosen
        .filter(({ target }) => target.base && target.held !== held)
        .map(({ bus, target }) => ({
            edit: 'attach',
            block: target.block,
            busInterface: target.busInterface,
            bus,
            base: target.base,
            held,
        }))
    if (edits.length > 0) {
        const title = `${held ? 'lock' : 'unlock'} ${edits.length} ranges`
        void context.edit({ edit: 'several', title, edits } as unknown as Edit)
    }
}
</script>

<template>
    <div class="sheet flex flex-wrap items-center gap-2 px-3 py-2" role="toolbar" aria-label="Chosen ranges">
        <span class="font-semibold">{{ chosen.length }} chosen</span>
        <button
            class="button"
            :disabled="chosen.length !== 2"
            title="Two ranges of one bus change places"
            @click="changeRanges(context, 'swap', refs())"
        >
            Swap
        </button>
        <span class="ml-2">Shift by</span>
        <input
            v-model="distance"
            class="input w-24 font-mono text-[13px]"
            aria-label="Distance of the shift"
            spellcheck="false"
        />
        <button class="button" @click="changeRanges(context, 'up', refs(), distance)">Up</button>
        <button class="button" @click="changeRanges(context, 'down', refs(), distance)">Down</button>
        <span class="flex-1"></span>
        <button class="button" @click="hold(true)">Lock</button>
        <button class="button" @click="hold(false)">Unlock</button>
        <button class="button" @click="emit('clear')">None</button>
    </div>
</template>
