<script setup lang="ts">
import { TrashIcon } from '@heroicons/vue/20/solid'
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { type Edit, answer, client, type BusView, type InitiatorView } from '../api/client'
import { usePlatform } from '../frame/platform'
import AddressField from './AddressField.vue'

const props = defineProps<{ bus: BusView }>()
const context = usePlatform()
const { data: library } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const widthsOf = (protocol: BusView['protocol']): number[] =>
    library.value?.protocols.find((each) => each.name === protocol)?.dataWidths ?? [props.bus.dataWidth]
const targets = computed(() => props.bus.slots.flatMap((slot) => (slot.target ? [slot.target] : [])))
const adapted = computed(() =>
    [...props.bus.initiators, ...targets.value].filter((each) => each.adapters.length > 0),
)
const isEmpty = computed(
    () => !props.bus.initiators.length && !targets.value.length && !props.bus.unplaced.length,
)

const change = (with_: Partial<BusView>): Promise<boolean> => context.edit(changed(with_))

function changed(with_: Partial<BusView>): Edit {
    const { name, protocol, dataWidth, addressWidth, domain, arbitration } = { ...props.bus, ...with_ }
    return {
        edit: 'change-bus',
        bus: {
            name,
            protocol,
            dataWidth,
            addressWidth,
            ...(domain ? { domain } : {}),
            ...(arbitration === 'by-priority' ? { arbitration } : {}),
        },
    }
}

function widen(text: string): Promise<true | string> {
    const addressWidth = Number(text)
    return Number.isInteger(addressWidth)
        ? context.tryEdit(changed({ addressWidth }))
        : Promise.resolve('Write a number of bits, such as 32.')
}

function toProtocol(protocol: BusView['protocol']): void {
    const widths = widthsOf(protocol)
    const dataWidth = widths.includes(props.bus.dataWidth)
        ? props.bus.dataWidth
        : (widths[0] ?? props.bus.dataWidth)
    void change({ protocol, dataWidth })
}

function prioritise(initiator: InitiatorView, priority: number): void {
    void context.edit({
        edit: 'set-priority',
        block: initiator.block,
        busInterface: initiator.busInterface,
        priority,
    })
}

async function remove(): Promise<void> {
    if (await context.edit({ edit: 'remove-bus', bus: props.bus.name })) {
        context.selected.value = undefined
    }
}

const valueOf = (event: Event): string => (event.target as HTMLSelectElement).value
</script>

<template>
    <aside
        class="flex w-[336px] shrink-0 max-[1000px]:w-[270px] flex-col gap-4 overflow-y-auto border-l border-line bg-sheet p-4"
        aria-label="Inspector"
    >
        <div>
            <div class="flex items-center gap-2">
                <h2 class="min-w-0 flex-1 truncate px-1 text-xl font-semibold">{{ bus.name }}</h2>
                <button
                    class="text-soft hover:text-error disabled:opacity-40 disabled:hover:text-soft"
                    :aria-label="`Remove bus ${bus.name}`"
                    :title="isEmpty ? 'Remove' : 'Only a bus with nothing on it can be removed'"
                    :disabled="!isEmpty"
                    @click="remove"
                >
                    <TrashIcon class="size-5" />
                </button>
            </div>
            <p class="px-1 text-[13px] text-soft">
                Bus{{
                    bus.depth ? (bus.depth === 1 ? ', behind a bridge' : `, behind ${bus.depth} bridges`) : ''
                }}
            </p>
        </div>
        <section>
            <h3 class="heading">Bus</h3>
            <label class="grid grid-cols-[128px_1fr] items-center py-0.5">
                <span>protocol</span>
                <select
                    class="input"
                    :value="bus.protocol"
                    @change="toProtocol(valueOf($event) as BusView['protocol'])"
                >
                    <option v-for="each in library?.protocols" :key="each.name" :value="each.name">
                        {{ each.title }}
                    </option>
                </select>
            </label>
            <label class="grid grid-cols-[128px_1fr] items-center py-0.5">
                <span>data width</span>
                <select
                    class="input"
                    :value="bus.dataWidth"
                    @change="change({ dataWidth: Number(valueOf($event)) })"
                >
                    <option v-for="width in widthsOf(bus.protocol)" :key="width" :value="width">
                        {{ width }} bit
                    </option>
                </select>
            </label>
            <div class="grid grid-cols-[128px_1fr] items-center">
                <span>address width</span>
                <AddressField
                    hide-label
                    :label="`Address width of ${bus.name} in bits`"
                    :value="String(bus.addressWidth)"
                    :write="widen"
                />
            </div>
            <label class="grid grid-cols-[128px_1fr] items-center py-0.5">
                <span>clock domain</span>
                <select
                    class="input"
                    :value="bus.domain ?? ''"
                    @change="change({ domain: valueOf($event) || undefined })"
                >
                    <option value="">none</option>
                    <option v-for="domain in context.platform.value?.domains" :key="domain.name">
                        {{ domain.name }}
                    </option>
                </select>
            </label>
        </section>
        <section>
            <h3 class="heading">Initiators</h3>
            <p v-if="!bus.initiators.length" class="text-soft">none yet</p>
            <label v-else class="grid grid-cols-[128px_1fr] items-center py-0.5">
                <span>arbitration</span>
                <select
                    class="input"
                    :value="bus.arbitration"
                    @change="change({ arbitration: valueOf($event) })"
                >
                    <option value="in-turn">round-robin</option>
                    <option value="by-priority">fixed priority</option>
                </select>
            </label>
            <label
                v-for="each in bus.initiators"
                :key="each.label"
                class="grid grid-cols-[1fr_64px] items-center py-0.5"
            >
                <span>{{ each.label }}</span>
                <select
                    v-if="bus.arbitration === 'by-priority'"
                    class="input font-mono"
                    :aria-label="`Priority of ${each.label}, 0 goes first`"
                    :value="each.priority ?? 15"
                    @change="prioritise(each, Number(valueOf($event)))"
                >
                    <option v-for="number in 16" :key="number" :value="number - 1">{{ number - 1 }}</option>
                </select>
            </label>
            <p v-if="bus.arbitration === 'by-priority'" class="text-[13px] text-soft">
                0 goes first; of equals, the one that waited longest.
            </p>
        </section>
        <section>
            <h3 class="heading">Adapters</h3>
            <p v-if="!adapted.length" class="text-soft">
                None: everything on the bus has its protocol, width and clock.
            </p>
            <div v-for="each in adapted" :key="each.label" class="py-0.5">
                <span class="font-semibold">{{ each.label }}</span>
                <p v-for="adapter in each.adapters" :key="adapter" class="text-[13px] text-soft">
                    {{ adapter }}
                </p>
            </div>
        </section>
    </aside>
</template>
