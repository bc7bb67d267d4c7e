<script setup lang="ts">
import { computed, ref } from 'vue'
import type { PinLineView, PinsView } from '../api/client'
import { usePlatform } from '../frame/platform'
import PinSettingFields from './PinSettingFields.vue'

const props = defineProps<{ lines: PinLineView[]; standards: PinsView['standards'] }>()
const context = usePlatform()

/** Pins of each port, lowest line first. */
const pins = computed(() => {
    const ports = new Map<string, string[]>()
    for (const line of props.lines) {
        const port = ports.get(portOf(line)) ?? []
        ports.set(portOf(line), line.pin ? [...port, line.pin] : port)
    }
    return ports
})

/** Line whose port is being set. */
const setting = ref<string>()

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

function portOf(line: PinLineView): string {
    return `${line.block ?? ''}.${line.outward ?? ''}.${line.signal ?? ''}`
}

/** Lines get their pins from the lowest on, so only the next one can be typed. */
function isOpenTo(line: PinLineView): boolean {
    return line.byHand && (line.pin != null || line.line === (pins.value.get(portOf(line))?.length ?? 0))
}

/** Gives one line a pin by hand; the others of its interface keep theirs. */
function move(line: PinLineView, event: Event): void {
    const field = event.target as HTMLInputElement
    const pin = field.value.trim().toUpperCase()
    if (!pin) {
        field.value = line.pin ?? ''
        return
    }
    const chosen: Record<string, string[]> = {}
    for (const each of props.lines) {
        if (each.signal && each.block === line.block && each.outward === line.outward) {
            chosen[each.signal] ??= [...(pins.value.get(portOf(each)) ?? [])]
        }
    }
    const port = chosen[line.signal ?? '']
    if (port) {
        port[line.line] = pin
    }
    void context.edit({ edit: 'bind-pins', block: line.block, outward: line.outward, pins: chosen })
}
</script>

<template>
    <p v-if="lines.length === 0" class="mt-6 text-soft">No external ports yet.</p>
    <table v-else class="sheet mt-3 w-full border-separate border-spacing-0">
        <thead>
            <tr class="table-head">
                <th scope="col" class="px-3 py-1.5">Line</th>
                <th scope="col" class="px-2 py-1.5">Dir.</th>
                <th scope="col" class="px-2 py-1.5">Pin</th>
                <th scope="col" class="px-2 py-1.5">Bank</th>
                <th scope="col" class="px-2 py-1.5">Standard</th>
                <th scope="col" class="px-3 py-1.5">From</th>
            </tr>
        </thead>
        <tbody>
            <template v-for="line in lines" :key="line.port">
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
                        <input
                            v-if="isOpenTo(line)"
                            class="input w-16 !py-0 font-mono text-[13px]"
                            :aria-label="`Pin of ${line.port}`"
                            :value="line.pin ?? ''"
                            :placeholder="line.pin ? '' : 'no pin'"
                            @change="move(line, $event)"
                        />
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
