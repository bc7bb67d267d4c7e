<script setup lang="ts">
import { computed } from 'vue'
import type { TargetView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { chipsOf, type CardChip } from './cardChips'
import { openMenu } from './contextMenu'
import { beginDrag, endDrag } from './dragging'
import { usePicture } from './picture'
import { useSelection } from './selection'
import { cardHeight, zoom } from './zoom'
import { gradeBorder } from '../findings/gradeColours'

/** @property room height for chips, in pixels */
const props = defineProps<{ target: TargetView; room: number }>()
const context = usePlatform()
const picture = usePicture()
const lit = computed(() => picture.lit.value?.has(props.target.block) ?? false)
const faded = computed(
    () =>
        picture.world.value?.has(`${props.target.block}.${props.target.busInterface}`) === false ||
        picture.matches.value?.has(props.target.block) === false,
)
/** Where the selected initiator sees it, and what a read costs. */
const seen = computed(() => picture.seen.value?.get(`${props.target.block}.${props.target.busInterface}`))
const block = computed(() => context.block(props.target.block))
const selection = useSelection()
const selected = computed(() => selection.isSelected(props.target.block))
const finding = computed(() => context.finding(props.target.block))
const chips = computed(() => chipsOf(props.target, block.value))
/** The net that is pointed at, where this block is on it. */
const pointed = computed(() => chips.value.find((chip) => chip.net === picture.net.value)?.net)
/** What tells this block from others of its type. */
const detail = computed(() => [props.target.title, block.value?.detail].filter(Boolean).join(' · '))
/** Behind a bridge the processor's address is shown; the one on the bus itself is the offset in the bridge's window. */
const offset = computed(() =>
    props.target.software
        ? `Offset ${props.target.base} in the window of the bridge` +
          (props.target.software.others ? `; ${props.target.software.others}` : '')
        : undefined,
)
const range = computed(() => {
    const at = seen.value ?? props.target.software ?? props.target
    return at.last ? `from ${at.base} to ${at.last}` : `from ${at.base}`
})
const SHADES: Record<CardChip['sort'], string> = {
    plain: '',
    held: '!text-accent',
    wrong: '!border-error !text-error',
    open: '!border-warn !text-warn',
}
const POINTED = '!border-accent !bg-accent-soft !text-accent'
const name = computed(() => block.value?.localName ?? props.target.block)
</script>

<template>
    <div :class="faded ? 'opacity-35' : ''" class="transition-opacity">
        <div class="ml-2 flex h-[18px] items-end border-l-2 border-ink pl-1.5">
            <span
                class="font-mono text-[12px] whitespace-nowrap"
                :class="target.conflict ? 'font-semibold text-error' : ''"
                :title="offset"
                >{{ seen?.base ?? target.software?.base ?? target.base
                }}<span v-if="seen" class="ml-1.5 font-sans text-soft" :title="'Cycles of a read'"
                    >{{ seen.cycles }} {{ seen.cycles === '1' ? 'cycle' : 'cycles' }}</span
                ></span
            >
        </div>
        <button
            class="flex w-full flex-col [contain:strict] [content-visibility:auto] overflow-hidden rounded-md border bg-sheet text-left hover:border-accent"
            :title="`${target.label}, ${detail}, ${target.size}, ${range}`"
            :class="[
                zoom === 'far' ? 'px-1.5 py-0.5 leading-tight' : 'px-2 py-px leading-[20px]',
                selected ? 'border-accent ring-1 ring-accent' : gradeBorder(finding?.grade),
                lit ? '!bg-accent-soft' : '',
            ]"
            :style="{ height: `${cardHeight(zoom, room)}px` }"
            data-card
            :data-block="target.block"
            :aria-pressed="selected"
            draggable="true"
            @click="selection.click(target.block, $event)"
            @contextmenu.prevent="openMenu($event, target.block)"
            @dragstart="beginDrag($event, target.block, target.busInterface)"
            @dragend="endDrag"
        >
            <span class="flex w-full shrink-0 items-baseline justify-between gap-1">
                <span class="truncate font-semibold">{{ name }}</span>
                <span v-if="zoom === 'near'" class="font-mono text-[11px] whitespace-nowrap text-soft">{{
                    target.size
                }}</span>
            </span>
            <span
                class="block w-full shrink-0 truncate text-soft"
                :class="zoom === 'far' ? 'text-[11px]' : 'text-[12.5px] leading-[18px]'"
                >{{ detail }}</span
            >
            <span class="sr-only">from {{ target.software?.base ?? target.base }}</span>
            <span v-if="zoom === 'near'" class="flex flex-wrap gap-x-1 gap-y-[2px]">
                <span
                    v-for="chip in chips"
                    :key="chip.text + (chip.net ?? '')"
                    class="tag max-w-full truncate !leading-[16px]"
                    :class="[SHADES[chip.sort], pointed && pointed === chip.net ? POINTED : '']"
                    :title="chip.title ?? chip.text"
                    @mouseenter="picture.net.value = chip.net"
                    @mouseleave="picture.net.value = undefined"
                    >{{ chip.text }}</span
                >
            </span>
        </button>
    </div>
</template>
