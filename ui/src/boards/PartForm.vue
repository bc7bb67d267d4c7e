<script setup lang="ts">
import { computed, ref } from 'vue'
import type { LibraryView } from '../api/client'
import { type BoardPart, readParameters, readPins, writeParameters } from './board'
import { vTyped } from '../frame/typedText'

const props = defineProps<{
    part: BoardPart
    kinds: string[]
    standards: string[]
    types: LibraryView['types']
    /** What is wrong at a place below the part. */
    wrong: (below: string) => string
}>()
const emit = defineEmits<{ remove: [] }>()
const part = computed(() => props.part)
const open = ref(false)
/** Block types with an outward interface for this sort of part. */
const drivers = computed(() =>
    props.types.flatMap((type) =>
        type.outward
            .filter((each) => each.partKinds.includes(part.value.kind))
            .map((each) => ({
                key: `${type.identity} ${each.name}`,
                type: type.identity,
                outward: each.name,
                title: `${type.title} ${type.identity.split(':').at(-1) ?? ''}, ${each.name}`,
            })),
    ),
)

function addSignal(): void {
    part.value.signals.push({ name: 'signal', direction: 'in', pins: [], standard: props.standards[0] ?? '' })
}

function addDriver(key: string): void {
    const chosen = drivers.value.find((each) => each.key === key)
    if (chosen) {
        part.value.drivers ??= []
        part.value.drivers.push({ type: chosen.type, outward: chosen.outward, parameters: {} })
    }
}

const valueOf = (event: Event): string => (event.target as HTMLInputElement).value
</script>

<template>
    <div class="border-b border-line py-2">
        <div class="grid grid-cols-[20px_150px_150px_1fr_24px] items-center gap-2">
            <button
                type="button"
                class="text-soft hover:text-accent"
                :aria-expanded="open"
                :aria-label="`Signals of ${part.name}`"
                @click="open = !open"
            >
                {{ open ? '▾' : '▸' }}
            </button>
            <input v-model="part.name" class="input font-mono" aria-label="Name of the part" />
            <input v-model="part.kind" list="kinds" class="input" aria-label="Sort of part" />
            <input v-model="part.title" class="input" aria-label="Title of the part" />
            <button
                type="button"
                class="text-soft hover:text-error"
                :aria-label="`Remove ${part.name}`"
                @click="emit('remove')"
            >
                ×
            </button>
        </div>
        <p v-if="wrong('')" class="mt-1 ml-7 text-[13px] text-error">{{ wrong('') }}</p>
        <div v-if="open" class="mt-2 ml-7 flex flex-col gap-2">
            <input
                v-model="part.summary"
                class="input"
                aria-label="Summary of the part"
                placeholder="What is special about it"
            />
            <div
                v-for="(signal, at) in part.signals"
                :key="at"
                class="grid grid-cols-[120px_76px_1fr_110px_86px_24px] items-center gap-2"
            >
                <input v-model="signal.name" class="input font-mono" aria-label="Name of the signal" />
                <select v-model="signal.direction" class="input" aria-label="Direction, seen from the FPGA">
                    <option>in</option>
                    <option>out</option>
                    <option>both</option>
                </select>
                <input
                    v-typed="signal.pins.join(' ')"
                    class="input font-mono"
                    :class="wrong(`/signals/${at}`) ? 'border-error' : ''"
                    aria-label="Pins, lowest line first"
                    placeholder="pins, lowest line first: C1-C8"
                    @change="signal.pins = readPins(valueOf($event))"
                />
                <select v-model="signal.standard" class="input" aria-label="I/O standard">
                    <option v-for="each in standards" :key="each">{{ each }}</option>
                </select>
                <label class="flex items-center gap-1 text-[13px]"
                    ><input v-model="signal.activeLow" type="checkbox" class="size-4" />low</label
                >
                <button
                    type="button"
                    class="text-soft hover:text-error"
                    :aria-label="`Remove signal ${signal.name}`"
                    @click="part.signals.splice(at, 1)"
                >
                    ×
                </button>
            </div>
            <button type="button" class="self-start text-accent hover:underline" @click="addSignal">
                Add a signal
            </button>
            <div
                v-for="(driver, at) in part.drivers"
                :key="at"
                class="grid grid-cols-[1fr_1fr_24px] items-center gap-2 text-[13px]"
            >
                <span class="truncate" :title="driver.type"
                    >driven by {{ driver.type.split(':').slice(2).join(' ') }}, {{ driver.outward }}</span
                >
                <input
                    v-typed="writeParameters(driver.parameters)"
                    class="input font-mono"
                    aria-label="Parameters that the block gets"
                    placeholder="WIDTH=8, DIRECTION=out"
                    @change="driver.parameters = readParameters(valueOf($event))"
                />
                <button
                    type="button"
                    class="text-soft hover:text-error"
                    aria-label="Remove driver"
                    @click="part.drivers?.splice(at, 1)"
                >
                    ×
                </button>
            </div>
            <label v-if="drivers.length" class="flex items-center gap-2 text-[13px]">
                Add a block type that can drive it
                <select class="input" value="" @change="addDriver(valueOf($event))">
                    <option value="">choose…</option>
                    <option v-for="each in drivers" :key="each.key" :value="each.key">
                        {{ each.title }}
                    </option>
                </select>
            </label>
            <p v-else class="text-[13px] text-soft">No block type drives parts of this sort.</p>
        </div>
    </div>
</template>
