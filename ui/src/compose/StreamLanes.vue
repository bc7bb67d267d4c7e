<script setup lang="ts">
import { computed } from 'vue'
import type { StreamView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'
import LaneBlock from './LaneBlock.vue'
import { layOutLanes, type Lane, type LaneEdge } from './laneLayout'
import { usePicture } from './picture'
import { zoom } from './zoom'

const context = usePlatform()
const picture = usePicture()
const streams = computed(() => context.platform.value?.streams ?? [])
const openSinks = computed(() => context.platform.value?.openSinks ?? [])
const lanes = computed(() => layOutLanes(streams.value, openSinks.value, picture.drawnAs))
const sizes = computed(() =>
    zoom.value === 'far'
        ? { width: 96, height: 40, step: 128, rise: 52 }
        : { width: 122, height: 46, step: 186, rise: 66 },
)
const props = defineProps<{ width: number }>()
const STUB = 34
/** Room to the left of a lane: enough for an open sink in its first column. */
const LEFT = 38
const left = (lane: Lane): number =>
    lane.edges.some((edge) => !edge.from && edge.to?.column === 0) ? LEFT : 10
/** From one column to the next: as far apart as the width allows. */
function step(lane: Lane): number {
    const room = props.width - left(lane) - sizes.value.width - 48
    const least = sizes.value.width + 32
    return lane.columns < 2
        ? sizes.value.step
        : Math.max(least, Math.min(sizes.value.step, room / (lane.columns - 1)))
}
const y = (row: number): number => 16 + row * sizes.value.rise
const middle = (row: number): number => y(row) + sizes.value.height / 2

/** A stream as a line with at most one step, just before its sink. */
function path(lane: Lane, edge: LaneEdge): string {
    const x = (column: number): number => left(lane) + column * step(lane)
    if (!edge.from) {
        const to = edge.to
        return to ? `M${String(x(to.column) - STUB)} ${String(middle(to.row))}h${String(STUB - 7)}` : ''
    }
    const start = `M${String(x(edge.from.column) + sizes.value.width)} ${String(middle(edge.from.row))}`
    if (!edge.to) {
        return `${start}h${String(STUB - 7)}`
    }
    const turn = x(edge.to.column) - 22
    return `${start}H${String(turn)}V${String(middle(edge.to.row))}H${String(x(edge.to.column) - 7)}`
}

function label(stream: StreamView | undefined): string {
    return stream ? String(stream.width) : ''
}

function explain(edge: LaneEdge): string {
    const stream = edge.stream
    if (!stream) {
        return `no source for ${edge.sink ?? ''}`
    }
    const carries = stream.carries ? `, ${stream.carries}` : ''
    return stream.sinkBlock
        ? `${stream.block}.${stream.source} to ${stream.sinkBlock}.${stream.sink ?? ''}: ${String(stream.width)} bit${carries}`
        : `${stream.block}.${stream.source} goes nowhere: ${String(stream.width)} bit${carries}`
}

const isOpen = (edge: LaneEdge): boolean => !edge.from || !edge.to
/** Several streams that leave a block for nowhere would lie on each other: one stands for all. */
function edgesOf(edges: LaneEdge[]): LaneEdge[] {
    const seen = new Set<string>()
    return edges.filter((edge) => {
        const key = edge.to && edge.from ? '' : `${edge.from?.name ?? ''}>${edge.to?.name ?? ''}`
        return key === '' || !(seen.has(key) || !seen.add(key))
    })
}
</script>

<template>
    <section
        v-if="lanes.length"
        aria-label="Streams"
        class="mb-3 rounded border border-line bg-sheet/60 px-2 py-2"
    >
        <h2 class="px-1 text-[12px] font-semibold text-soft">Streams</h2>
        <div v-for="lane in lanes" :key="lane.nodes[0]?.name" v-scrolls class="overflow-x-auto">
            <div
                class="relative"
                :style="{
                    width: `${left(lane) + (lane.columns - 1) * step(lane) + sizes.width + STUB + 8}px`,
                    height: `${y(lane.rows - 1) + sizes.height + 12}px`,
                }"
            >
                <svg class="absolute inset-0 size-full overflow-visible" role="presentation">
                    <g
                        v-for="(edge, at) in edgesOf(lane.edges)"
                        :key="at"
                        :class="edge.stream?.wrong ? 'text-error' : isOpen(edge) ? 'text-warn' : 'text-ink'"
                    >
                        <title>{{ explain(edge) }}</title>
                        <path
                            :d="path(lane, edge)"
                            fill="none"
                            stroke="currentColor"
                            stroke-width="2"
                            :stroke-dasharray="isOpen(edge) ? '3 3' : undefined"
                        />
                        <path
                            v-if="edge.to"
                            fill="currentColor"
                            :d="`M${left(lane) + edge.to.column * step(lane) - 8} ${middle(edge.to.row) - 5}l8 5l-8 5z`"
                        />
                        <text
                            v-if="zoom === 'near' && edge.from && edge.to && edge.stream"
                            :x="left(lane) + edge.to.column * step(lane) - (step(lane) - sizes.width) / 2 - 3"
                            :y="middle(edge.to.row) - 7"
                            text-anchor="middle"
                            class="fill-current font-mono text-[11px]"
                        >
                            {{ edge.from.row === edge.to.row ? label(edge.stream) : '' }}
                        </text>
                        <text
                            v-if="isOpen(edge)"
                            :x="
                                edge.to
                                    ? left(lane) + edge.to.column * step(lane) - STUB
                                    : left(lane) + (edge.from?.column ?? 0) * step(lane) + sizes.width + 4
                            "
                            :y="middle((edge.to ?? edge.from)?.row ?? 0) - 6"
                            class="fill-current text-[11px]"
                        >
                            open
                        </text>
                    </g>
                </svg>
                <LaneBlock
                    v-for="node in lane.nodes"
                    :key="node.name"
                    class="absolute"
                    :name="node.name"
                    :style="{
                        left: `${left(lane) + node.column * step(lane)}px`,
                        top: `${y(node.row)}px`,
                        width: `${sizes.width}px`,
                        height: `${sizes.height}px`,
                    }"
                />
            </div>
        </div>
    </section>
</template>
