<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { PinLineView, PinsView } from '../api/client'
import { usePlatform } from '../frame/platform'
import SortHead from '../frame/SortHead.vue'
import type { Order } from '../frame/tableView'
import PinSettingFields from './PinSettingFields.vue'
import { listedPins, typedPins } from './typedPins'

/** @property shown those lines that are shown, in their order; the others keep their pins all the same */
const props = defineProps<{ lines: PinLineView[]; shown: PinLineView[]; standards: PinsView['standards'] }>()
const order = defineModel<Order>('order', { required: true })
const context = usePlatform()

/** Line whose port is being set. */
const setting = ref<string>()
/** Pins that were typed and wait for a line before them, by port. */
const typed = ref(new Map<string, string>())
const waiting = computed(() => typedPins(props.lines, typed.value).waiting)
/** Line whose field has the focus: a press on the package goes there. */
const field = ref<string>()
const body = ref<HTMLElement>()

// Others may have bound what waits here.
watch(
    () => props.lines,
    (lines) => {
        for (const line of lines) {
            if (line.pin && typed.value.get(line.port) === line.pin) {
                typed.value.delete(line.port)
            }
        }
    },
)

/** What differs from nothing pulled, nothing terminated, in a few words. */
function electrics(line: PinLineView): string {
    return [
        line.drive ? `${line.drive} mA` : '',
        line.slew ?? '',
        line.pull && line.pull !== 'none' ? `pull ${line.pull}` : '',
        line.termination && line.termination !== 'none' ? `${line.termination} termination` : '',
    ]
        .filter(Boolean)
        .join(', ')
}

/** Gives lines pins by hand; the others of their interfaces keep theirs. */
async function bind(pins: [string, string][]): Promise<void> {
    const before = new Map(typed.value)
    for (const [port, pin] of pins) {
        typed.value.set(port, pin)
    }
    const { edits, waiting: rest } = typedPins(props.lines, typed.value)
    const first = edits[0]
    if (!first) {
        return
    }
    const done = await context.edit(
        edits.length === 1 ? first : { edit: 'several', title: 'bind pins', edits },
    )
    typed.value = done ? new Map([...typed.value].filter(([port]) => rest.has(port))) : before
}

function change(line: PinLineView, event: Event): void {
    const input = event.target as HTMLInputElement
    const pin = input.value.trim().toUpperCase()
    if (!pin) {
        typed.value.delete(line.port)
        input.value = line.pin ?? ''
        return
    }
    void bind([[line.port, pin]])
}

/** A list goes into this line and those below it. */
function paste(line: PinLineView, event: ClipboardEvent): void {
    const pins = listedPins(event.clipboardData?.getData('text/plain') ?? '')
    if (pins.length < 2) {
        return
    }
    event.preventDefault()
    const open = props.shown.filter((each) => each.byHand)
    const from = open.findIndex((each) => each.port === line.port)
    void bind(
        open.slice(from, from + pins.length).map((each, at): [string, string] => [each.port, pins[at] ?? '']),
    )
}

/** A press on the package gives the pin to the line whose field was entered last, and goes on to the next one. */
function take(pin: string): void {
    const open = props.shown.filter((each) => each.byHand)
    const at = open.findIndex((each) => each.port === field.value)
    const line = open[at]
    if (line) {
        void bind([[line.port, pin]])
        body.value?.querySelector<HTMLElement>(`[data-pin-of="${open[at + 1]?.port ?? ''}"]`)?.focus()
    }
}
defineExpose({ take, field })
</script>

<template>
    <p v-if="lines.length === 0" class="mt-6 text-soft">No external ports yet.</p>
    <table v-else class="sheet mt-3 w-full border-separate border-spacing-0">
        <thead>
            <tr class="table-head">
                <SortHead v-model="order" class="!pl-3" by="line" title="Line" />
                <th scope="col" class="px-2 py-1.5">Dir.</th>
                <SortHead v-model="order" by="pin" title="Pin" />
                <SortHead v-model="order" by="bank" title="Bank" />
                <SortHead v-model="order" by="standard" title="Standard" />
                <SortHead v-model="order" class="!pl-3" by="from" title="From" />
            </tr>
        </thead>
        <tbody ref="body">
            <template v-for="line in shown" :key="line.port">
                <tr :class="line.block && context.selected.value === line.block ? 'bg-accent-soft' : ''">
                    <td class="border-t border-line px-3 py-0.5">
                        <button
                            v-if="line.block"
                            class="font-mono text-[13px] font-semibold hover:text-accent"
                            @click="context.selected.value = line.block"
                        >
                            {{ line.port }}
                        </button>
                        <span v-else class="font-mono text-[13px] font-semibold">{{ line.port }}</span>
                    </td>
                    <td class="border-t border-line px-2 py-0.5 text-[13px] text-soft">
                        {{ line.direction }}
                    </td>
                    <td class="border-t border-line px-2 py-0.5">
                        <template v-if="line.byHand">
                            <input
                                class="input w-16 !py-0 font-mono text-[13px]"
                                :class="field === line.port ? '!border-accent' : ''"
                                :aria-label="`Pin of ${line.port}`"
                                :value="typed.get(line.port) ?? line.pin ?? ''"
                                :placeholder="line.pin ? '' : 'no pin'"
                                :data-pin-of="line.port"
                                @focus="field = line.port"
                                @blur="field = undefined"
                                @change="change(line, $event)"
                                @paste="paste(line, $event)"
                            />
                            <span
                                v-if="waiting.has(line.port)"
                                class="tag ml-1 !border-warn !text-warn"
                                :title="`A port gets its pins from the lowest line on`"
                                >after {{ waiting.get(line.port) }}</span
                            >
                        </template>
                        <span v-else-if="line.pin" class="font-mono text-[13px]">{{ line.pin }}</span>
                        <span v-else class="tag !border-warn !text-warn">no pin</span>
                    </td>
                    <td class="border-t border-line px-2 py-0.5 text-[13px]">
                        <template v-if="line.bank"
                            >{{ line.bank }} <span class="text-soft">{{ line.voltage }}</span></template
                        >
                    </td>
                    <td class="border-t border-line px-2 py-0.5 font-mono text-[13px]">
                        <button
                            v-if="line.block && line.pin"
                            class="text-left hover:text-accent"
                            :aria-expanded="setting === line.port"
                            @click="setting = setting === line.port ? undefined : line.port"
                        >
                            {{ line.standard ?? 'no standard' }}
                            <span class="sr-only">set the pins of {{ line.port }}</span>
                            <span class="block font-sans text-[12px] text-soft">{{ electrics(line) }}</span>
                        </button>
                        <template v-else>{{ line.standard ?? '' }}</template>
                    </td>
                    <td class="border-t border-line px-3 py-0.5 text-[13px] text-soft">{{ line.by }}</td>
                </tr>
                <tr v-if="setting === line.port">
                    <td colspan="6" class="bg-paper">
                        <PinSettingFields :line="line" :standards="standards" />
                    </td>
                </tr>
            </template>
        </tbody>
    </table>
</template>
