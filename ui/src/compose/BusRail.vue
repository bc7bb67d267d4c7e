<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { BusView } from '../api/client'
import { open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import BlockCard from './BlockCard.vue'
import { chipsOf, linesOf } from './cardChips'
import { dragging, drop, hover } from './dragging'
import { foldSlots } from './foldSlots'
import GroupCard from './GroupCard.vue'
import { usePicture } from './picture'
import RailHeader from './RailHeader.vue'
import { layOutRail } from './railLayout'
import { useScrolledPart } from './scrolledPart'
import { SIZES, zoom } from './zoom'

const props = defineProps<{ bus: BusView; width: number }>()
const context = usePlatform()
const picture = usePicture()
/** A bus behind a bridge stands a step further in. */
const STEP = 24
const indent = computed(() => props.bus.depth * STEP)
const slots = computed(() => foldSlots(props.bus.slots, picture.drawnAs))
/** Room for chips in a card, within its padding and border. */
const CHIPS = SIZES.near.card - 18
const layout = computed(() =>
    layOutRail(slots.value, props.width - indent.value, SIZES[zoom.value], (slot) =>
        zoom.value === 'near' && slot.target && !slot.group
            ? linesOf(chipsOf(slot.target, context.block(slot.target.block)), CHIPS)
            : 0,
    ),
)

/** Rails up to this many rows are drawn whole; of longer ones, what can be seen and what is selected. */
const WHOLE = 120
const rail = useTemplateRef<HTMLElement>('rail')
const part = useScrolledPart(rail)
const rows = computed(() => {
    const all = layout.value.rows.map((row, at) => ({ ...row, at }))
    if (all.length <= WHOLE) {
        return all
    }
    const chosen = context.selected.value
    const { from, to } = part.value
    return all.filter(
        (row) =>
            (row.y >= from && row.y <= to) || row.items.some((item) => item.slot.target?.block === chosen),
    )
})

function addAt(base: string): void {
    open.addAt = { base, bus: props.bus.name }
    open.add = true
}
</script>

<template>
    <section :aria-label="`Bus ${bus.name}`" class="mb-2" :style="{ marginLeft: `${indent}px` }">
        <RailHeader :bus="bus" />
        <div
            ref="rail"
            class="relative"
            :style="{ height: `${layout.height}px`, width: `${width - indent}px` }"
        >
            <template v-for="row in rows" :key="row.at">
                <template v-for="item in row.items" :key="item.slot.base + (item.slot.target?.label ?? '')">
                    <div
                        v-if="item.slot.target"
                        class="absolute h-[5px] bg-ink"
                        :style="{ left: `${item.x - 4}px`, top: `${row.y}px`, width: `${item.width + 8}px` }"
                    ></div>
                    <!-- The place is on a box of its own: a card is only drawn again when it changes itself. -->
                    <div
                        v-if="item.slot.target"
                        class="absolute"
                        :style="{ left: `${item.x}px`, top: `${row.y + 5}px`, width: `${item.width}px` }"
                    >
                        <GroupCard
                            v-if="item.slot.group"
                            :group="item.slot.group.name"
                            :count="item.slot.group.count"
                            :base="item.slot.base"
                            :chips="row.chips"
                        />
                        <BlockCard v-else :target="item.slot.target" :room="row.chips" />
                    </div>
                    <button
                        v-else
                        class="group absolute flex flex-col overflow-hidden text-center"
                        :style="{
                            left: `${item.x}px`,
                            top: `${row.y}px`,
                            width: `${item.width}px`,
                            height: `${Math.min(row.height - 6, 60)}px`,
                        }"
                        :title="`Free from ${item.slot.base} to ${item.slot.last}: add a block here`"
                        :class="
                            dragging.over === `${bus.name} ${item.slot.base}`
                                ? 'rounded bg-accent-soft outline-2 outline-accent'
                                : ''
                        "
                        @click="addAt(item.slot.base)"
                        @dragenter.prevent="hover(context, bus.name, item.slot.base)"
                        @dragover.prevent="hover(context, bus.name, item.slot.base)"
                        @drop.prevent="drop(context)"
                    >
                        <span
                            class="block h-[5px] [background:repeating-linear-gradient(90deg,var(--soft)_0_3px,transparent_3px_7px)]"
                        ></span>
                        <span class="mt-1 block font-mono text-[12px] text-soft group-hover:text-accent">
                            {{ item.slot.size }}
                        </span>
                        <span
                            v-if="zoom === 'near'"
                            class="block text-[12px] text-soft group-hover:text-accent"
                            >{{ item.slot.kept ?? 'free' }}</span
                        >
                    </button>
                </template>
                <span
                    v-if="row.at < layout.rows.length - 1"
                    class="absolute font-mono text-soft"
                    :style="{ left: `${row.width + 6}px`, top: `${row.y - 9}px` }"
                    aria-hidden="true"
                    >↵</span
                >
            </template>
        </div>
        <div v-if="bus.unplaced.length" class="flex flex-wrap items-center gap-2 pb-2">
            <span class="text-[13px] text-error">Without an address:</span>
            <button
                v-for="target in bus.unplaced"
                :key="target.label"
                class="button"
                @click="context.selected.value = target.block"
            >
                {{ target.label }} · {{ target.size }}
            </button>
        </div>
    </section>
</template>
