<script setup lang="ts">
import { ref } from 'vue'
import type { AddressesView } from '../api/client'
import { beginDrag, dragging, drop, endDrag, hover } from '../compose/dragging'
import { usePlatform } from '../frame/platform'
import { useRowsInSight } from '../frame/rowsInSight'
import { vScrolls } from '../frame/scrolls'

type Row = AddressesView['rulers']['rows'][number]
type Cell = Row['cells'][number]

const props = defineProps<{ rulers: AddressesView['rulers'] }>()
const context = usePlatform()
const body = ref<HTMLElement | null>(null)
const isEmpty = (row: Row): boolean => row.cells.every((cell) => cell.targets.length === 0)
const FULL = 48
const GAP = 36
const height = (row: Row): number => (isEmpty(row) ? GAP : FULL)
const part = useRowsInSight(body, () => props.rulers.rows, height)

/** A gap can take what is dragged where it is free on the initiator's own bus. */
const takes = (cell: Cell, at: number): boolean => cell.gap === 'free' && props.rulers.buses[at] !== ''

function over(event: DragEvent, row: Row, at: number): void {
    const cell = row.cells[at]
    const bus = props.rulers.buses[at]
    if (cell && bus && dragging.block !== undefined && takes(cell, at)) {
        event.preventDefault()
        hover(context, bus, row.base)
    }
}
const offered = (row: Row, at: number): boolean =>
    dragging.over === `${props.rulers.buses[at] ?? ''} ${row.base}`

const words = (cell: Cell, row: Row): string => {
    if (cell.gap === 'free') {
        return isEmpty(row) ? `${row.size} free` : ''
    }
    return cell.what ?? ''
}
</script>

<template>
    <section aria-label="Address spaces side by side">
        <h2 class="text-lg font-semibold">Address maps</h2>
        <p v-if="rulers.columns.length === 0" class="mt-2 text-soft">
            No initiator is on a bus yet, so there is no address map.
        </p>
        <p v-else class="text-[13px] text-soft">Drag a target into free space to move it.</p>
        <div v-if="rulers.columns.length" v-scrolls class="mt-2 overflow-x-auto">
            <table
                class="w-full table-fixed border-separate border-spacing-x-2 border-spacing-y-0"
                :style="{ minWidth: `${104 + rulers.columns.length * 110}px` }"
            >
                <colgroup>
                    <col class="w-[104px]" />
                    <col v-for="column in rulers.columns" :key="column" />
                </colgroup>
                <thead>
                    <tr>
                        <td></td>
                        <th
                            v-for="column in rulers.columns"
                            :key="column"
                            scope="col"
                            class="pb-1 text-left text-[13px] font-semibold"
                        >
                            {{ column }}
                        </th>
                    </tr>
                </thead>
                <tbody ref="body">
                    <tr v-if="part.above" :style="{ height: `${part.above}px` }"></tr>
                    <tr
                        v-for="row in part.rows"
                        :key="row.base"
                        :style="{ height: `${height(row)}px` }"
                        :data-ruler-row="row.base"
                    >
                        <th scope="row" class="relative align-top font-mono text-[12px] font-normal">
                            <span
                                class="absolute -top-0 right-0 left-0 border-t border-line pt-px text-left"
                                >{{ row.base }}</span
                            >
                        </th>
                        <td
                            v-for="(cell, at) in row.cells"
                            :key="at"
                            class="border-x-2 border-ink p-0 align-top"
                            :class="[
                                cell.targets.length > 1
                                    ? 'bg-error-soft'
                                    : cell.targets.length === 1
                                      ? 'border-t border-t-line bg-sheet'
                                      : cell.gap === 'free' || (cell.gap === 'hidden' && !cell.what)
                                        ? 'border-t border-t-line'
                                        : 'ruler-blocked border-t border-t-line',
                                offered(row, at) ? 'outline-2 -outline-offset-2 outline-accent' : '',
                            ]"
                            @dragover="over($event, row, at)"
                            @drop.prevent="drop(context)"
                        >
                            <div v-if="cell.targets.length === 0" class="px-2 pt-2 text-[12px] text-soft">
                                <span
                                    v-if="offered(row, at) && dragging.offer"
                                    class="font-semibold text-accent"
                                    >{{ dragging.offer.problem ?? dragging.offer.words }}</span
                                >
                                <span v-else class="line-clamp-1" :title="cell.what ?? undefined">{{
                                    words(cell, row)
                                }}</span>
                            </div>
                            <div v-else class="px-2 pt-0.5">
                                <button
                                    v-for="target in cell.targets"
                                    :key="target.label"
                                    class="mr-2 max-w-full truncate align-bottom font-semibold hover:text-accent"
                                    :class="[
                                        cell.targets.length > 1 ? 'text-error' : '',
                                        context.selected.value === target.block
                                            ? 'text-accent underline'
                                            : '',
                                    ]"
                                    draggable="true"
                                    :title="
                                        target.via.length ? `through ${target.via.join(', ')}` : undefined
                                    "
                                    @dragstart="beginDrag($event, target.block, target.busInterface)"
                                    @dragend="endDrag"
                                    @click="context.selected.value = target.block"
                                >
                                    {{ target.label }}
                                </button>
                                <span class="block truncate font-mono text-[12px] text-soft">
                                    {{ cell.targets.length > 1 ? 'conflict · ' : '' }}{{ row.size }}
                                </span>
                            </div>
                        </td>
                    </tr>
                    <tr v-if="part.below" :style="{ height: `${part.below}px` }"></tr>
                </tbody>
                <tfoot>
                    <tr>
                        <th
                            scope="row"
                            class="border-t border-line pt-px text-left font-mono text-[12px] font-normal"
                        >
                            {{ rulers.rows.at(-1)?.last }}
                        </th>
                        <td v-for="column in rulers.columns" :key="column" class="border-t-2 border-ink"></td>
                    </tr>
                </tfoot>
            </table>
        </div>
    </section>
</template>

<style scoped>
/* Nothing answers here, and nothing can be put here either. */
.ruler-blocked {
    background-image: repeating-linear-gradient(135deg, var(--line) 0 1px, transparent 1px 7px);
}
</style>
