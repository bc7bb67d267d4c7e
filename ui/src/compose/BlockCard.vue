<script setup lang="ts">
import { computed } from 'vue'
import type { TargetView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { openMenu } from './contextMenu'
import { beginDrag, endDrag } from './dragging'
import { tagsOf } from './nets'
import { usePicture } from './picture'
import { useSelection } from './selection'
import { zoom } from './zoom'
import { gradeBorder } from '../findings/gradeColours'

const props = defineProps<{ target: TargetView }>()
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
const tags = computed(() => (block.value ? tagsOf(block.value) : []))
/** The tag of this block that is on the net that is pointed at. */
const pointed = computed(() => tags.value.find((tag) => tag.net === picture.net.value)?.net)
/** What tells this block from others of its type. */
const detail = computed(() => [props.target.title, block.value?.detail].filter(Boolean).join(' · '))
/** Behind a bridge the processor's address is shown; the one on the bus itself is the offset in the bridge's window. */
const offset = computed(() =>
    props.target.software
        ? `Offset ${props.target.base} in the window of the bridge` +
          (props.target.software.others ? `; ${props.target.software.others}` : '')
        : undefined,
)
const name = computed(() => block.value?.localName ?? props.target.block)
</script>

<template>
    <div :class="faded ? 'opacity-35' : ''" class="transition-opacity">
        <div class="ml-2 flex h-5 items-end border-l-2 border-ink pl-1.5">
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
            :title="`${target.label}, ${detail}, ${target.size}`"
            :class="[
                zoom === 'far' ? 'h-[42px] px-1.5 py-0.5 leading-tight' : 'h-[114px] px-2 py-1',
                selected ? 'border-accent ring-1 ring-accent' : gradeBorder(finding?.grade),
                lit ? '!bg-accent-soft' : '',
            ]"
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
                :class="zoom === 'far' ? 'text-[11px]' : 'text-[13px]'"
                >{{ detail }}</span
            >
            <span class="sr-only">from {{ target.software?.base ?? target.base }}</span>
            <span v-if="zoom === 'near'" class="mt-1 flex flex-wrap gap-1">
                <span v-if="target.held" class="tag !text-accent">locked</span>
                <span v-if="target.conflict" class="tag !border-error !text-error">overlap</span>
                <span v-if="block?.group" class="tag" :title="`in group ${block.group}`">{{
                    block.group
                }}</span>
                <span v-if="target.leadsTo" class="tag">to {{ target.leadsTo }}</span>
                <span v-if="target.adapters.length" class="tag" :title="target.adapters.join('\n')"
                    >adapted</span
                >
                <span
                    v-for="tag in tags"
                    :key="tag.net + tag.text"
                    class="tag"
                    :class="[
                        tag.open ? '!border-warn !text-warn' : '',
                        pointed === tag.net ? '!border-accent !bg-accent-soft !text-accent' : '',
                    ]"
                    @mouseenter="picture.net.value = tag.net"
                    @mouseleave="picture.net.value = undefined"
                    >{{ tag.text }}</span
                >
            </span>
            <span
                v-if="target.last && zoom === 'near'"
                class="mt-auto block w-full font-mono text-[11px] whitespace-nowrap text-soft"
                >to {{ seen?.last ?? target.software?.last ?? target.last }}</span
            >
        </button>
    </div>
</template>
