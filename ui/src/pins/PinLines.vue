<script setup lang="ts">
import type { PinLineView } from '../api/client'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ lines: PinLineView[] }>()
const context = usePlatform()

/** Gives one line a pin by hand; the others of its interface keep theirs. */
function move(line: PinLineView, event: Event): void {
    const pin = (event.target as HTMLInputElement).value.trim().toUpperCase()
    const pins: Record<string, string[]> = {}
    for (const each of props.lines) {
        if (each.block === line.block && each.outward === line.outward && each.signal) {
            const port = (pins[each.signal] ??= [])
            port[each.line] = each === line ? pin : (each.pin ?? '')
        }
    }
    // What has no pin yet stays open, so that it is found.
    for (const port of Object.keys(pins)) {
        pins[port] = (pins[port] ?? []).filter(Boolean)
    }
    void context.edit({ edit: 'bind-pins', block: line.block, outward: line.outward, pins })
}
</script>

<template>
    <p v-if="lines.length === 0" class="mt-6 text-soft">Nothing leaves the chip yet.</p>
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
            <tr
                v-for="line in lines"
                :key="line.port"
                :class="line.block && context.selected.value === line.block ? 'bg-accent-soft' : ''"
            >
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
                <td class="border-t border-line px-2 py-0.5 text-[13px] text-soft">{{ line.direction }}</td>
                <td class="border-t border-line px-2 py-0.5">
                    <input
                        v-if="line.byHand && line.pin"
                        class="input w-16 !py-0 font-mono text-[13px]"
                        :aria-label="`Pin of ${line.port}`"
                        :value="line.pin"
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
                    {{ line.standard ?? '' }}
                </td>
                <td class="border-t border-line px-3 py-0.5 text-[13px] text-soft">{{ line.by }}</td>
            </tr>
        </tbody>
    </table>
</template>
