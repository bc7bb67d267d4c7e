<script setup lang="ts">
import { computed } from 'vue'
import type { PlatformView, TargetView } from '../api/client'
import AddressField from '../compose/AddressField.vue'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ platform: PlatformView }>()
const context = usePlatform()

interface Row {
    bus: string
    target: TargetView
    /** First row of its bus, where there are several. */
    first: boolean
    /** Where an initiator sees it, when bridges are between. */
    seen?: string
    /** Whether the size is a parameter of the block and can be changed here. */
    sizable: boolean
}

const rows = computed<Row[]>(() =>
    props.platform.buses.flatMap((bus) =>
        [...bus.slots.flatMap((slot) => (slot.target ? [slot.target] : [])), ...bus.unplaced].map(
            (target, at) => ({
                bus: bus.name,
                target,
                first: at === 0 && props.platform.buses.length > 1,
                seen: target.seen ?? undefined,
                sizable: target.sizable,
            }),
        ),
    ),
)

function place(row: Row, base: string | null | undefined, held: boolean): Promise<boolean> {
    return context.edit({
        edit: 'attach',
        block: row.target.block,
        busInterface: row.target.busInterface,
        bus: row.bus,
        ...(base ? { base } : {}),
        held,
    })
}

function resize(row: Row, size: string): Promise<boolean> {
    return context.edit({ edit: 'set-parameter', block: row.target.block, parameter: 'SIZE', value: size })
}
</script>

<template>
    <table class="sheet mt-1 w-full border-separate border-spacing-0">
        <thead>
            <tr class="table-head">
                <th scope="col" class="px-3 py-1.5">Target</th>
                <th scope="col" class="px-2 py-1.5">Base</th>
                <th scope="col" class="px-2 py-1.5">Size</th>
                <th scope="col" class="px-2 py-1.5">Last</th>
                <th scope="col" class="px-3 py-1.5">Held</th>
            </tr>
        </thead>
        <tbody>
            <template v-for="row in rows" :key="row.bus + row.target.label">
                <tr v-if="row.first">
                    <th
                        scope="rowgroup"
                        colspan="5"
                        class="border-t border-line bg-paper px-3 py-1 text-left text-[13px] font-semibold"
                    >
                        {{ row.bus }}
                    </th>
                </tr>
                <tr
                    :class="
                        row.target.conflict
                            ? 'bg-error-soft'
                            : context.selected.value === row.target.block
                              ? 'bg-accent-soft'
                              : ''
                    "
                    :data-range="row.target.label"
                >
                    <td class="border-t border-line px-3 py-0.5">
                        <button
                            class="font-semibold hover:text-accent"
                            @click="context.selected.value = row.target.block"
                        >
                            {{ row.target.label }}
                        </button>
                        <span v-if="row.target.conflict" class="ml-2 text-[13px] font-semibold text-error"
                            >overlaps</span
                        >
                        <span v-if="row.seen" class="block text-[12px] text-soft">{{ row.seen }}</span>
                        <span v-if="!row.target.base" class="ml-2 text-[13px] font-semibold text-error"
                            >no address</span
                        >
                    </td>
                    <td class="w-36 border-t border-line px-2 py-0.5">
                        <AddressField
                            hide-label
                            :label="`Base of ${row.target.label}`"
                            :value="row.target.base ?? ''"
                            :write="(base: string) => place(row, base, row.target.held)"
                        />
                    </td>
                    <td class="w-28 border-t border-line px-2 py-0.5 font-mono text-[13px]">
                        <AddressField
                            v-if="row.sizable"
                            hide-label
                            :label="`Size of ${row.target.label}`"
                            :value="row.target.size"
                            :write="(size: string) => resize(row, size)"
                        />
                        <span v-else class="px-2">{{ row.target.size }}</span>
                    </td>
                    <td class="border-t border-line px-2 py-0.5 font-mono text-[13px]">
                        {{ row.target.last ?? '' }}
                    </td>
                    <td class="border-t border-line px-3 py-0.5">
                        <input
                            type="checkbox"
                            class="size-4 accent-[var(--accent)]"
                            :checked="row.target.held"
                            :disabled="!row.target.base"
                            :aria-label="`Hold ${row.target.label} where it is`"
                            @change="place(row, row.target.base, !row.target.held)"
                        />
                    </td>
                </tr>
            </template>
        </tbody>
    </table>
</template>
