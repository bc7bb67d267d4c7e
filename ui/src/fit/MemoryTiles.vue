<script setup lang="ts">
import { computed } from 'vue'
import type { FitView } from '../api/client'
import { usePlatform } from '../frame/platform'

type Memory = FitView['memory']
type Unit = Memory['tiles'][number] | undefined

const props = defineProps<{ memory: Memory }>()
const context = usePlatform()

/** The blocks of the device, each with what is in it; further ones are those that there is no room for. */
const blocks = computed(() => {
    const inEach = props.memory.halves ? 2 : 1
    const count = Math.max(props.memory.blocks, props.memory.blocksUsed)
    return Array.from({ length: count }, (_, at) => ({
        number: at,
        beyond: at >= props.memory.blocks,
        units: Array.from({ length: inEach }, (_, half): Unit => props.memory.tiles[at * inEach + half]),
    }))
})

function title(unit: Unit): string {
    return unit
        ? `${unit.memory}: ${unit.holds}, set to ${unit.shape}, ${String(unit.percent)} % of its bits used`
        : 'free'
}
</script>

<template>
    <ol class="mt-3 flex flex-wrap gap-1" aria-label="Memory blocks of the device">
        <li
            v-for="block in blocks"
            :key="block.number"
            class="flex h-8 w-8 overflow-hidden rounded-[3px] border"
            :class="block.beyond ? 'border-dashed border-error' : 'border-line'"
        >
            <template v-for="(unit, half) in block.units" :key="half">
                <button
                    v-if="unit"
                    class="relative h-full flex-1 border-l border-line first:border-l-0 hover:brightness-90"
                    :class="context.selected.value === unit.block ? 'bg-accent-soft' : 'bg-sheet'"
                    :title="title(unit)"
                    :aria-label="`Block ${block.number}: ${title(unit)}`"
                    @click="context.selected.value = unit.block"
                >
                    <span
                        class="absolute inset-x-0 bottom-0"
                        :class="
                            block.beyond
                                ? 'bg-error'
                                : context.selected.value === unit.block
                                  ? 'bg-accent'
                                  : 'bg-soft/60'
                        "
                        :style="{ height: `${Math.max(4, unit.percent)}%` }"
                    ></span>
                </button>
                <span v-else class="h-full flex-1 border-l border-line first:border-l-0" title="free"></span>
            </template>
        </li>
    </ol>
</template>
