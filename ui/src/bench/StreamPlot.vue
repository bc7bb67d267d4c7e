<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import UPlot from 'uplot'
import 'uplot/dist/uPlot.min.css'
import { computed, onBeforeUnmount, ref, useTemplateRef, watch } from 'vue'
import { answer, client, type BenchView } from '../api/client'
import { rowsOf } from './streamWords'

const props = defineProps<{
    id: string
    streams: BenchView['streams']
    running: boolean
}>()

const POLL_MILLIS = 200
const IDLE_MILLIS = 2000
const MOST = 1000
const HEIGHT = 190
const FONT = '11px "IBM Plex Mono", monospace'
const COMPACT = new Intl.NumberFormat('en', { notation: 'compact', maximumFractionDigits: 2 })

const chosen = ref<string>()
const stream = computed(() => props.streams.find((each) => each.stream === chosen.value) ?? props.streams[0])
const canvas = useTemplateRef<HTMLDivElement>('canvas')
let plot: UPlot | undefined
let watcher: ResizeObserver | undefined

const words = useQuery({
    queryKey: ['bench-stream', props.id, computed(() => stream.value?.stream)],
    queryFn: () => {
        const [block = '', source = ''] = (stream.value?.stream ?? '').split('.')
        return answer(
            client.GET('/api/platforms/{id}/bench/streams/{block}/{source}', {
                params: { path: { id: props.id, block, source }, query: { since: 0 } },
            }),
        )
    },
    enabled: computed(() => stream.value !== undefined),
    refetchInterval: computed(() => (props.running ? POLL_MILLIS : IDLE_MILLIS)),
})

const rows = computed(() =>
    words.data.value
        ? rowsOf(words.data.value.values, words.data.value.ends, stream.value?.sampleBits ?? 0, MOST)
        : { x: [], channels: [], isPackets: false },
)

/** Of the Okabe–Ito set, which colour-blind people tell apart. */
const COLOURS = ['#0072b2', '#d55e00', '#009e73', '#cc79a7', '#e69f00', '#56b4e9', '#f0e442', '#999999']

function colour(name: string): string {
    return getComputedStyle(document.documentElement).getPropertyValue(name).trim()
}

function build(): void {
    plot?.destroy()
    plot = undefined
    if (!canvas.value || !rows.value.channels.length) {
        return
    }
    const axis = {
        stroke: colour('--soft'),
        grid: { stroke: colour('--line'), width: 1 },
        ticks: { stroke: colour('--line'), width: 1 },
        font: FONT,
    }
    plot = new UPlot(
        {
            width: canvas.value.clientWidth,
            height: HEIGHT,
            legend: { show: false },
            cursor: { show: false },
            scales: { x: { time: false } },
            axes: [
                {
                    ...axis,
                    size: 28,
                    gap: 3,
                    label: rows.value.isPackets ? 'packet' : 'word',
                    labelSize: 16,
                    labelGap: 0,
                    labelFont: FONT,
                },
                {
                    ...axis,
                    size: 52,
                    space: 24,
                    values: (_, ticks) => ticks.map((tick) => COMPACT.format(tick)),
                },
            ],
            series: [
                {},
                ...rows.value.channels.map((_, channel) => ({
                    label: `channel ${channel}`,
                    stroke: COLOURS[channel] ?? COLOURS[0],
                    width: 1.25,
                    points: { show: false },
                })),
            ],
        },
        [rows.value.x, ...rows.value.channels],
        canvas.value,
    )
}

watch(() => [rows.value.channels.length, stream.value?.stream, canvas.value] as const, build, {
    flush: 'post',
})
watch(rows, (now) => plot?.setData([now.x, ...now.channels]), { flush: 'post' })
watch(
    canvas,
    (element) => {
        watcher?.disconnect()
        if (element) {
            watcher = new ResizeObserver(() => plot?.setSize({ width: element.clientWidth, height: HEIGHT }))
            watcher.observe(element)
        }
    },
    { flush: 'post' },
)
onBeforeUnmount(() => {
    watcher?.disconnect()
    plot?.destroy()
})
</script>

<template>
    <section v-if="stream" class="sheet p-3" aria-label="Streams">
        <!-- One line however many words there are: nothing moves while the program runs. -->
        <div class="flex items-center gap-x-3">
            <h2 class="text-[13px] font-semibold">Stream</h2>
            <select
                class="input min-w-0 !py-0.5 font-mono text-[13px]"
                aria-label="Stream to plot"
                :value="stream.stream"
                @change="chosen = ($event.target as HTMLSelectElement).value"
            >
                <option v-for="each in streams" :key="each.stream" :value="each.stream">
                    {{ each.stream }}
                </option>
            </select>
            <span class="min-w-0 flex-1 truncate text-[12px] text-soft tabular-nums">
                {{ (words.data.value?.end ?? 0).toLocaleString('en') }}
                {{ stream.sampleBits ? `samples of ${stream.sampleBits} bits` : 'words' }}
            </span>
            <span
                v-for="(_, channel) in rows.channels"
                :key="channel"
                class="flex items-center gap-1 text-[12px] whitespace-nowrap"
            >
                <span class="inline-block h-0.5 w-3" :style="{ background: COLOURS[channel] }"></span>
                {{ rows.channels.length > 1 ? channel : 'word' }}
            </span>
        </div>
        <div
            ref="canvas"
            class="mt-1"
            role="img"
            :aria-label="`Newest words of ${stream.stream}`"
            :style="{ minHeight: `${HEIGHT}px` }"
        >
            <p v-if="!rows.channels.length" class="py-2 text-[13px] text-soft">
                No word yet. Words appear as the program lets them flow.
            </p>
        </div>
    </section>
</template>
