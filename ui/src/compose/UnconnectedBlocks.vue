<script setup lang="ts">
import type { BlockView } from '../api/client'
import { open } from '../frame/actions'
import { openMenu } from './contextMenu'
import { useSelection } from './selection'

defineProps<{ blocks: BlockView[] }>()
const selection = useSelection()
</script>

<template>
    <section class="rounded border border-dashed border-line p-3" aria-label="Unconnected blocks">
        <div class="flex items-center justify-between">
            <h2 class="text-[13px] font-semibold text-soft">Unconnected blocks</h2>
            <button class="button" @click="open.wiring = true">Show the wiring plan</button>
        </div>
        <div class="mt-2 flex flex-wrap gap-2">
            <button
                v-for="block in blocks"
                :key="block.name"
                class="sheet w-[138px] px-2 py-1 text-left hover:border-accent"
                :class="selection.isSelected(block.name) ? 'border-accent ring-1 ring-accent' : ''"
                data-card
                :data-block="block.name"
                @click="selection.click(block.name, $event)"
                @contextmenu.prevent="openMenu($event, block.name)"
            >
                <span class="block truncate font-semibold">{{ block.name }}</span>
                <span class="block truncate text-[13px] text-soft">{{ block.title }}</span>
            </button>
        </div>
    </section>
</template>
