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
    /** Whether the size is a parameter of the block and can be changed here. */
    sizable: boolean
}

const rows = computed<Row[]>(() =>
    props.platform.buses.flatMap((bus) =>
        [...bus.slots.flatMap((slot) => (slot.target ? [slot.target] : [])), ...bus.unplaced].map(
            (target) => ({
                bus: bus.name,
                target,
                sizable: props.platform.blocks
                    .filter((block) => block.name === target.block)
                    .some((block) => block.parameters.some((value) => value.parameter.name === 'SIZE')),
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
            <tr
                v-for="row in rows"
                :key="row.bus + row.target.label"
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
        </tbody>
    </table>
</template>
