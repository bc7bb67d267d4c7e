<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Edit, PlatformView, TargetView } from '../api/client'
import AddressField from '../compose/AddressField.vue'
import FindField from '../frame/FindField.vue'
import { usePlatform } from '../frame/platform'
import SortHead from '../frame/SortHead.vue'
import { useTableView } from '../frame/tableView'
import { useRowsInSight } from '../frame/rowsInSight'
import RangeTools from './RangeTools.vue'
import { changeRanges } from './ranges'
import { addressNumber, onBus } from './softwareAddress'

const props = defineProps<{ platform: PlatformView }>()
const context = usePlatform()

interface Row {
    bus: string
    target: TargetView
    ref: string
}
interface Heading {
    bus: string
    target?: undefined
    ref: string
}

/** The address that software uses: on a bus behind a bridge another one than on the bus itself. */
const shown = (target: TargetView) => target.software ?? target

const targets = computed<Row[]>(() =>
    props.platform.buses.flatMap((bus) =>
        [...bus.slots.flatMap((slot) => (slot.target ? [slot.target] : [])), ...bus.unplaced].map(
            (target) => ({ bus: bus.name, target, ref: `${target.block}.${target.busInterface}` }),
        ),
    ),
)
const {
    find,
    order,
    shown: arranged,
} = useTableView<Row>(
    () => targets.value,
    ({ bus, target }) =>
        [target.label, bus, shown(target).base, shown(target).last, target.size, target.base].join(' '),
    {
        target: ({ target }) => target.label,
        base: ({ target }) => addressNumber(shown(target).base),
        size: ({ target }) => sizeOf(target),
        last: ({ target }) => addressNumber(shown(target).last),
        locked: ({ target }) => (target.held ? 0 : 1),
    },
)
/** In the order of the buses each of them has a heading. */
const rows = computed<(Row | Heading)[]>(() => {
    if (order.value.by || props.platform.buses.length < 2) {
        return arranged.value
    }
    const rows: (Row | Heading)[] = []
    let bus: string | undefined
    for (const row of arranged.value) {
        if (row.bus !== bus) {
            bus = row.bus
            rows.push({ bus, ref: '' })
        }
        rows.push(row)
    }
    return rows
})

function sizeOf(target: TargetView): bigint | undefined {
    const base = addressNumber(target.base)
    const last = addressNumber(target.last)
    return base === undefined || last === undefined ? undefined : last - base
}
const body = ref<HTMLElement | null>(null)
const HEADING = 29
const height = (row: Row | Heading): number => (row.target ? (row.target.software ? 46 : 38) : HEADING)
const part = useRowsInSight(body, () => rows.value, height)

const marked = ref(new Set<string>())
const chosen = computed(() => targets.value.filter((row) => marked.value.has(row.ref)))
function mark(ref: string): void {
    if (!marked.value.delete(ref)) {
        marked.value.add(ref)
    }
}

async function move(row: Row, typed: string): Promise<true | string> {
    const done = await context.tryEdit(attachment(row, onBus(row.target, typed), row.target.held))
    return done !== true && row.target.software && done.includes('is below 0')
        ? `${typed} lies below the window of the bridge`
        : done
}

const attachment = (row: Row, base: string | null | undefined, held: boolean): Edit => ({
    edit: 'attach',
    block: row.target.block,
    busInterface: row.target.busInterface,
    bus: row.bus,
    ...(base ? { base } : {}),
    held,
})

function resize(row: Row, size: string): Promise<true | string> {
    return context.tryEdit({
        edit: 'set-parameter',
        block: row.target.block,
        parameter: row.target.sizeParameter ?? '',
        value: size,
    })
}
</script>

<template>
    <FindField
        v-if="targets.length > 1"
        v-model="find"
        label="Find a target or an address"
        :found="arranged.length"
        :all="targets.length"
    />
    <p v-if="find && arranged.length === 0" class="text-soft">
        No target matches “{{ find }}”.
        <button class="text-accent hover:underline" @click="find = ''">Show all targets</button>
    </p>
    <RangeTools v-if="chosen.length" :chosen="chosen" @clear="marked.clear()" />
    <table class="sheet w-full border-separate border-spacing-0" aria-label="Ranges">
        <thead>
            <tr class="table-head">
                <th scope="col" class="w-8 py-1.5 pl-3"><span class="sr-only">Chosen</span></th>
                <SortHead v-model="order" by="target" title="Target" />
                <SortHead v-model="order" by="base" title="Base" />
                <SortHead v-model="order" by="size" title="Size" />
                <SortHead v-model="order" by="last" title="Last" />
                <SortHead v-model="order" by="locked" title="Locked" />
            </tr>
        </thead>
        <tbody ref="body">
            <tr v-if="part.above" :style="{ height: `${part.above}px` }"></tr>
            <template v-for="row in part.rows" :key="row.bus + ' ' + row.ref">
                <tr v-if="!row.target" :style="{ height: `${HEADING}px` }">
                    <th
                        scope="rowgroup"
                        colspan="6"
                        class="border-t border-line bg-paper px-3 py-1 text-left text-[13px] font-semibold"
                    >
                        {{ row.bus }}
                    </th>
                </tr>
                <tr
                    v-else
                    :style="{ height: `${height(row)}px` }"
                    :class="
                        row.target.conflict
                            ? 'bg-error-soft'
                            : context.selected.value === row.target.block
                              ? 'bg-accent-soft'
                              : ''
                    "
                    :data-range="row.target.label"
                >
                    <td class="border-t border-line py-0.5 pl-3">
                        <input
                            type="checkbox"
                            class="size-4 accent-[var(--accent)]"
                            :checked="marked.has(row.ref)"
                            :aria-label="`Choose ${row.target.label}`"
                            @change="mark(row.ref)"
                        />
                    </td>
                    <td class="border-t border-line px-2 py-0.5">
                        <button
                            class="text-left font-semibold hover:text-accent"
                            @click="context.selected.value = row.target.block"
                        >
                            {{ row.target.label }}
                        </button>
                        <template v-if="row.target.conflict">
                            <span class="ml-2 text-[13px] font-semibold text-error">overlaps</span>
                            <button
                                v-if="!row.target.held && row.target.base"
                                class="button ml-2 !py-0"
                                :aria-label="`Take ${row.target.label} to the nearest free place`"
                                @click="changeRanges(context, 'snap', [row.ref], row.target.base)"
                            >
                                Nearest free
                            </button>
                        </template>
                        <span
                            v-if="row.target.software"
                            class="block text-[12px] text-soft"
                            :title="row.target.seen ?? ''"
                            >offset {{ row.target.base
                            }}{{ row.target.software.others ? `; ${row.target.software.others}` : '' }}</span
                        >
                        <span v-if="!row.target.base" class="ml-2 text-[13px] font-semibold text-error"
                            >no address</span
                        >
                    </td>
                    <td class="w-36 border-t border-line px-2 py-0.5">
                        <AddressField
                            hide-label
                            address
                            :label="`Base of ${row.target.label}`"
                            :value="shown(row.target).base ?? ''"
                            :write="(base: string) => move(row as Row, base)"
                        />
                    </td>
                    <td class="w-28 border-t border-line px-2 py-0.5 font-mono text-[13px]">
                        <AddressField
                            v-if="row.target.sizeParameter"
                            hide-label
                            :label="`Size of ${row.target.label}`"
                            :value="row.target.size"
                            :write="(size: string) => resize(row as Row, size)"
                        />
                        <span v-else class="px-2">{{ row.target.size }}</span>
                    </td>
                    <td class="w-36 border-t border-line px-2 py-0.5 font-mono text-[13px]">
                        <AddressField
                            v-if="row.target.last"
                            hide-label
                            address
                            :label="`Last address of ${row.target.label}`"
                            :value="shown(row.target).last ?? ''"
                            :write="
                                (last: string) =>
                                    changeRanges(context, 'end', [row.ref], onBus(row.target, last))
                            "
                        />
                    </td>
                    <td class="border-t border-line px-3 py-0.5">
                        <input
                            type="checkbox"
                            class="size-4 accent-[var(--accent)]"
                            :checked="row.target.held"
                            :disabled="!row.target.base"
                            :aria-label="`Lock ${row.target.label}`"
                            @change="context.edit(attachment(row, row.target.base, !row.target.held))"
                        />
                    </td>
                </tr>
            </template>
            <tr v-if="part.below" :style="{ height: `${part.below}px` }"></tr>
        </tbody>
    </table>
</template>
