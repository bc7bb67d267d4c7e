<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PinsView } from '../api/client'
import { domainColour } from '../compose/domainColours'
import { usePlatform } from '../frame/platform'

/** @property picks line that a press on a free pin gives it to */
const props = defineProps<{ banks: PinsView['banks']; device: string; picks?: string }>()
const emit = defineEmits<{ pick: [pin: string] }>()
const context = usePlatform()

type Pin = PinsView['banks'][number]['pins'][number] & { bank: string; voltage: string; colour: string }

const voltages = computed(() => [...new Set(props.banks.map((bank) => bank.voltage))].sort().reverse())
const pins = computed(
    () =>
        new Map<string, Pin>(
            props.banks.flatMap((bank) =>
                bank.pins.map((pin) => [
                    pin.pin,
                    {
                        ...pin,
                        bank: bank.name,
                        voltage: bank.voltage,
                        colour: domainColour(voltages.value.indexOf(bank.voltage)),
                    },
                ]),
            ),
        ),
)
const paired = computed(() =>
    props.banks.filter((bank) => bank.pins.some((pin) => pin.partner)).map((bank) => bank.name),
)
/** Rows and columns of the package, from the names of its pins. */
const rows = computed(() => [...new Set([...pins.value.keys()].map((pin) => pin.replace(/\d+$/, '')))])
const columns = computed(() =>
    Math.max(0, ...[...pins.value.keys()].map((pin) => Number(/\d+$/.exec(pin)?.[0] ?? 0))),
)

/** The pin under the pointer or with the focus, and with it the one that makes a pair with it. */
const looked = ref<Pin>()

function press(pin: Pin): void {
    if (props.picks && !pin.port) {
        emit('pick', pin.pin)
    } else {
        context.selected.value = pin.block ?? undefined
    }
}

function title(pin: Pin): string {
    const pair = pin.partner ? `; makes a pair with ${pin.partner}` : ''
    return `${pin.pin}, bank ${pin.bank}, ${pin.voltage}: ${pin.port ?? 'free'}${pin.note ? `; ${pin.note}` : ''}${pair}`
}
</script>

<template>
    <section aria-label="Package" class="sticky top-0 h-fit">
        <h2 class="heading">{{ device }}, seen from above</h2>
        <div
            class="mt-2 grid gap-[2px]"
            :style="{ gridTemplateColumns: `18px repeat(${String(columns)}, minmax(0, 1fr))` }"
        >
            <span></span>
            <span
                v-for="column in columns"
                :key="column"
                class="text-center font-mono text-[10px] text-soft"
                >{{ column }}</span
            >
            <template v-for="row in rows" :key="row">
                <span class="self-center font-mono text-[10px] text-soft">{{ row }}</span>
                <template v-for="column in columns" :key="row + column">
                    <button
                        v-if="pins.get(row + column)"
                        class="aspect-square rounded-full border-2"
                        :style="{
                            borderColor: pins.get(row + column)?.colour,
                            background: pins.get(row + column)?.port
                                ? pins.get(row + column)?.colour
                                : undefined,
                        }"
                        :class="[
                            pins.get(row + column)?.note && !pins.get(row + column)?.port
                                ? 'border-dashed'
                                : '',
                            pins.get(row + column)?.block &&
                            pins.get(row + column)?.block === context.selected.value
                                ? 'outline-2 outline-ink'
                                : '',
                            looked?.partner === row + column ? 'outline-2 outline-accent' : '',
                        ]"
                        :title="title(pins.get(row + column) as Pin)"
                        :aria-label="title(pins.get(row + column) as Pin)"
                        @mouseenter="looked = pins.get(row + column)"
                        @focus="looked = pins.get(row + column)"
                        @mouseleave="looked = undefined"
                        @blur="looked = undefined"
                        @mousedown.prevent
                        @click="press(pins.get(row + column) as Pin)"
                    ></button>
                    <span v-else></span>
                </template>
            </template>
        </div>
        <ul class="mt-3 flex flex-wrap gap-x-4 gap-y-1 text-[13px]">
            <li v-for="(voltage, at) in voltages" :key="voltage" class="flex items-center gap-1.5">
                <span class="size-3 rounded-full border-2" :style="{ borderColor: domainColour(at) }"></span>
                {{ voltage }}:
                {{
                    banks
                        .filter((bank) => bank.voltage === voltage)
                        .map((bank) => bank.name)
                        .join(', ')
                }}
            </li>
        </ul>
        <p class="mt-1 text-[13px] text-soft">
            Filled pins carry a line. Dashed ones have something on the board, take a clock, or are needed for
            configuration.
        </p>
        <p v-if="picks" class="mt-1 text-[13px] text-accent">
            A press on a free pin gives it to <span class="font-mono">{{ picks }}</span>.
        </p>
        <p class="mt-2 text-[13px] text-soft">
            <template v-if="looked">{{ title(looked) }}</template>
            <template v-else-if="paired.length"
                >Pins pair in {{ paired.length === 1 ? 'bank' : 'banks' }} {{ paired.join(', ') }}; point at a
                pin to see its partner.</template
            >
        </p>
    </section>
</template>
