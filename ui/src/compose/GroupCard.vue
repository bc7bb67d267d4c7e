<script setup lang="ts">
import { computed } from 'vue'
import { usePlatform } from '../frame/platform'
import { openMenu } from './contextMenu'
import { usePicture } from './picture'
import { cardHeight, zoom } from './zoom'

/** The targets of a folded group on one bus, as one card. */
const props = defineProps<{ group: string; base: string; count: number; chips: number }>()
const context = usePlatform()
const picture = usePicture()
const selected = computed(() => context.selected.value === `group ${props.group}`)
</script>

<template>
    <div>
        <div class="ml-2 flex h-[18px] items-end border-l-2 border-ink pl-1.5">
            <span class="font-mono text-[12px]">{{ base }}</span>
        </div>
        <button
            class="flex w-full flex-col overflow-hidden rounded-md border border-double bg-sheet text-left shadow-[2px_2px_0_var(--line)] hover:border-accent"
            :class="[
                zoom === 'far' ? 'px-1.5 py-0.5 leading-tight' : 'px-2 py-px leading-[20px]',
                selected ? 'border-accent ring-1 ring-accent' : 'border-line',
            ]"
            :style="{ height: `${cardHeight(zoom, chips)}px` }"
            data-card
            title="Double click unfolds it"
            :data-group="group"
            :aria-pressed="selected"
            @click="context.selected.value = `group ${group}`"
            @dblclick="picture.toggleFold(group)"
            @contextmenu.prevent="openMenu($event, `group ${group}`)"
        >
            <span class="w-full truncate font-semibold">{{ group }}</span>
            <span class="w-full truncate text-soft" :class="zoom === 'far' ? 'text-[11px]' : 'text-[13px]'"
                >group, {{ count }} here</span
            >
        </button>
    </div>
</template>
