<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { PlatformView, StateView } from '../api/client'
import { enterableVolts } from './volts'

const props = defineProps<{
    parts: PlatformView['parts']
    state: StateView
    setVoltage: (part: string, channel: number, volts: number) => void
    setSignal: (part: string, shape: string) => void
    setSamples: (part: string, table: string) => void
    setReception: (part: string, on: boolean) => void
}>()

const title = (part: string): string => props.parts.find((each) => each.part === part)?.title ?? part
const isEmpty = computed(
    () => !props.state.voltages.length && !props.state.signals.length && !props.state.receptions.length,
)

/** What moves a part now; its controls are still there, but not for the hand. */
const holder = (part: string): string | undefined =>
    props.state.around.find((each) => each.acts && each.parts.includes(part))?.title

/** Where a slider is being moved it shows what the hand does, not what the last frame said. */
const moved = ref<Record<string, number>>({})
const key = (part: string, channel: number): string => `${part}.${channel}`
const volts = (each: StateView['voltages'][number]): number =>
    moved.value[key(each.part, each.channel)] ?? each.volts

function move(each: StateView['voltages'][number], value: number): void {
    const place = key(each.part, each.channel)
    moved.value = { ...moved.value, [place]: value }
    props.setVoltage(each.part, each.channel, value)
}

/** A frame that shows what was set ends the memory of it. */
watch(
    () => props.state.voltages,
    (now) => {
        for (const each of now) {
            const place = key(each.part, each.channel)
            const own = moved.value[place]
            if (own !== undefined && Math.abs(own - each.volts) <= each.fullScale / 4096) {
                moved.value = Object.fromEntries(
                    Object.entries(moved.value).filter(([name]) => name !== place),
                )
            }
        }
    },
)

/** The server says what is wrong with a table, and where. */
async function fromFile(part: string, event: Event): Promise<void> {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    input.value = ''
    if (file) {
        props.setSamples(part, await file.text())
    }
}

/** What is being typed stays, whatever the board says meanwhile. */
const drafts = ref<Record<string, string>>({})

function draft(each: StateView['voltages'][number], text: string | undefined): void {
    const rest = Object.entries(drafts.value).filter(([name]) => name !== key(each.part, each.channel))
    drafts.value = Object.fromEntries(
        text === undefined ? rest : [...rest, [key(each.part, each.channel), text]],
    )
}

function typed(each: StateView['voltages'][number], event: Event): void {
    const input = event.target as HTMLInputElement
    const value = enterableVolts(input.value, each.fullScale)
    if (value === undefined) {
        input.setCustomValidity(`0 to ${each.fullScale} V`)
        input.reportValidity()
        return
    }
    input.setCustomValidity('')
    draft(each, undefined)
    move(each, value)
}
</script>

<template>
    <section v-if="!isEmpty" class="sheet p-3" aria-label="Inputs of the board">
        <h2 class="text-[13px] font-semibold">Inputs of the board</h2>
        <div
            v-for="each in state.voltages"
            :key="`${each.part}.${each.channel}`"
            class="mt-2 grid grid-cols-[150px_1fr_auto] items-center gap-x-3"
        >
            <div class="leading-tight">
                <div>{{ title(each.part) }}</div>
                <div class="text-[12px] text-soft">
                    {{ each.block }}<template v-if="each.channel > 0">, channel {{ each.channel }}</template>
                    <template v-if="holder(each.part)"> · follows the {{ holder(each.part) }}</template>
                </div>
            </div>
            <input
                type="range"
                class="w-full accent-accent disabled:opacity-50"
                :disabled="!!holder(each.part)"
                min="0"
                :max="each.fullScale"
                :step="each.fullScale / 1000"
                :value="volts(each)"
                :aria-label="`${title(each.part)}, channel ${each.channel}`"
                :aria-valuetext="`${volts(each).toFixed(2)} V`"
                @input="move(each, Number(($event.target as HTMLInputElement).value))"
            />
            <label class="flex items-center gap-1">
                <input
                    class="input w-20 !py-0.5 text-right font-mono"
                    :disabled="!!holder(each.part)"
                    :value="drafts[key(each.part, each.channel)] ?? volts(each).toFixed(2)"
                    :aria-label="`${title(each.part)} in volts`"
                    @input="draft(each, ($event.target as HTMLInputElement).value)"
                    @change="typed(each, $event)"
                    @keydown.esc.stop="draft(each, undefined)"
                />
                <span class="text-soft">of {{ each.fullScale }} V</span>
            </label>
        </div>
        <div
            v-for="each in state.signals"
            :key="each.part"
            class="mt-2 grid grid-cols-[150px_1fr] items-center gap-x-3"
        >
            <div class="leading-tight">
                <div>{{ title(each.part) }}</div>
                <div class="text-[12px] text-soft">{{ each.block }}</div>
            </div>
            <div class="flex flex-wrap gap-1.5" role="group" :aria-label="`Signal at ${title(each.part)}`">
                <button
                    v-for="shape in each.shapes"
                    :key="shape"
                    class="button !px-2 !py-0.5 text-[13px]"
                    :class="shape === each.shape ? '!border-accent !text-accent' : ''"
                    :aria-pressed="shape === each.shape"
                    @click="setSignal(each.part, shape)"
                >
                    {{ shape }}
                </button>
                <label
                    class="button cursor-pointer !px-2 !py-0.5 text-[13px] focus-within:outline focus-within:outline-2"
                    :title="`CSV: one row for each sample, ${each.channels} whole numbers of ${each.bits} bits; repeated from the start`"
                >
                    from file …
                    <input
                        type="file"
                        class="sr-only"
                        accept=".csv,text/csv,text/plain"
                        :aria-label="`Samples of ${title(each.part)} from a CSV file`"
                        @change="fromFile(each.part, $event)"
                    />
                </label>
            </div>
        </div>
        <div
            v-for="each in state.receptions"
            :key="each.part"
            class="mt-2 grid grid-cols-[150px_1fr] items-center gap-x-3"
        >
            <div class="leading-tight">
                <div>{{ title(each.part) }}</div>
                <div class="text-[12px] text-soft">{{ each.block }}</div>
            </div>
            <label class="flex items-center gap-2">
                <input
                    type="checkbox"
                    class="accent-accent"
                    :checked="each.on"
                    @change="setReception(each.part, ($event.target as HTMLInputElement).checked)"
                />
                pulse and message each second
            </label>
        </div>
    </section>
</template>
