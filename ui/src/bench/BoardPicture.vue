<script setup lang="ts">
import { computed } from 'vue'
import type { PlatformView, StateView } from '../api/client'
import { useHands } from './hands'

const props = defineProps<{
    title: string
    parts: PlatformView['parts']
    levels: StateView['parts']
    loaded: boolean
    /** Puts a line of a part high or low; false when the board refuses. */
    move: (part: string, line: number, high: boolean) => Promise<boolean>
}>()

interface Row {
    part: string
    title: string
    kind: string
    block?: string | null
    width: number
    /** For lines with pulses the part of the time for which each is high. */
    pulses: number[]
}

const rows = computed<Row[]>(() =>
    props.parts
        .filter((part) => ['lamps', 'switches', 'buttons'].includes(part.kind))
        .map((part) => {
            const level = props.levels.find((each) => each.part === part.part)
            return {
                part: part.part,
                title: part.title,
                kind: part.kind,
                block: part.block,
                width: level?.width ?? 0,
                pulses: level?.pulses ?? [],
            }
        }),
)

const hands = useHands(
    () => props.levels,
    (part, line, high) => props.move(part, line, high),
)
const percent = (row: Row, line: number): string => `${((row.pulses[line] ?? 0) * 100).toFixed(0)} %`
const isHigh = (row: Row, line: number): boolean => hands.isHigh(row.part, line)
/** Line 0 is on the right, as in a binary number. */
const lines = (row: Row): number[] => Array.from({ length: row.width }, (_, at) => row.width - 1 - at)
</script>

<template>
    <section class="sheet p-3" aria-label="Board">
        <h2 class="text-[13px] font-semibold">{{ title }}</h2>
        <div v-for="row in rows" :key="row.part" class="mt-2 grid grid-cols-[150px_1fr] items-center">
            <div class="leading-tight">
                <div>{{ row.title }}</div>
                <div class="text-[12px] text-soft">{{ row.block ?? 'not used by the platform' }}</div>
                <div v-if="row.kind === 'buttons' && row.width > 0" class="text-[12px] text-soft">
                    Shift keeps it pressed
                </div>
            </div>
            <!-- Eight in a row, as they are counted; more go on below. -->
            <div
                class="min-h-12 items-center"
                :class="row.width > 8 ? 'grid w-max grid-cols-8 gap-x-2.5 gap-y-1' : 'flex gap-2.5'"
            >
                <p v-if="row.block && !loaded" class="text-[13px] text-soft">off: no program loaded</p>
                <template v-for="line in lines(row)" :key="line">
                    <!-- What is driven with pulses shows how much of the time it is high, by height and in words. -->
                    <div
                        v-if="row.kind === 'lamps' && row.pulses.length > 0"
                        class="flex w-12 flex-col items-center"
                        role="img"
                        :aria-label="`Output ${line} high ${percent(row, line)} of the time`"
                        :data-pulse="percent(row, line)"
                    >
                        <svg viewBox="0 0 24 24" class="size-6" aria-hidden="true">
                            <rect
                                x="6"
                                y="1"
                                width="12"
                                height="22"
                                rx="2"
                                fill="var(--sunken)"
                                stroke="var(--ink)"
                                stroke-width="1.2"
                            />
                            <rect
                                x="7"
                                :y="22 - 20 * (row.pulses[line] ?? 0)"
                                width="10"
                                :height="20 * (row.pulses[line] ?? 0)"
                                fill="#e69f00"
                            />
                        </svg>
                        <span class="font-mono text-[11px] whitespace-nowrap">{{ percent(row, line) }}</span>
                        <span class="font-mono text-[11px] text-soft">{{ line }}</span>
                    </div>
                    <div
                        v-else-if="row.kind === 'lamps'"
                        class="flex w-9 flex-col items-center"
                        role="img"
                        :aria-label="`Lamp ${line} ${isHigh(row, line) ? 'lit' : 'dark'}`"
                        :data-lamp="isHigh(row, line) ? 'lit' : 'dark'"
                    >
                        <svg viewBox="0 0 24 24" class="size-6" aria-hidden="true">
                            <circle
                                cx="12"
                                cy="12"
                                r="10"
                                :fill="isHigh(row, line) ? '#e69f00' : 'var(--sunken)'"
                                stroke="var(--ink)"
                                stroke-width="1.2"
                            />
                            <circle v-if="isHigh(row, line)" cx="12" cy="12" r="4" fill="#fff3cf" />
                        </svg>
                        <span class="font-mono text-[11px] text-soft">{{ line }}</span>
                    </div>
                    <button
                        v-else-if="row.kind === 'switches'"
                        class="flex w-9 flex-col items-center"
                        role="switch"
                        :aria-checked="isHigh(row, line)"
                        :aria-label="`Switch ${line}`"
                        @click="hands.flip(row.part, line)"
                    >
                        <svg viewBox="0 0 16 28" class="h-7 w-4" aria-hidden="true">
                            <rect
                                x="1"
                                y="1"
                                width="14"
                                height="26"
                                rx="3"
                                fill="var(--sunken)"
                                stroke="var(--ink)"
                                stroke-width="1.2"
                            />
                            <rect
                                x="3"
                                :y="isHigh(row, line) ? 3 : 14"
                                width="10"
                                height="11"
                                rx="2"
                                :fill="isHigh(row, line) ? 'var(--accent)' : 'var(--soft)'"
                            />
                        </svg>
                        <span class="font-mono text-[11px] text-soft">{{ line }}</span>
                    </button>
                    <button
                        v-else
                        class="flex w-9 flex-col items-center"
                        :aria-label="`Button ${line}`"
                        :aria-pressed="isHigh(row, line)"
                        @pointerdown="hands.press(row.part, line, $event.shiftKey)"
                        @pointerup="hands.release(row.part, line)"
                        @pointerleave="hands.release(row.part, line)"
                        @keydown.space.prevent="$event.repeat || hands.press(row.part, line, $event.shiftKey)"
                        @keyup.space.prevent="hands.release(row.part, line)"
                    >
                        <svg viewBox="0 0 24 24" class="size-6" aria-hidden="true">
                            <rect
                                x="1"
                                y="1"
                                width="22"
                                height="22"
                                rx="3"
                                fill="var(--sunken)"
                                stroke="var(--ink)"
                                stroke-width="1.2"
                            />
                            <circle
                                cx="12"
                                cy="12"
                                r="7"
                                :fill="isHigh(row, line) ? 'var(--accent)' : 'var(--soft)'"
                            />
                        </svg>
                        <span class="font-mono text-[11px] text-soft">{{ line }}</span>
                    </button>
                </template>
            </div>
        </div>
    </section>
</template>
