<script setup lang="ts">
import { computed } from 'vue'
import type { BusView, InitiatorView, TargetView } from '../api/client'
import { open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import BlockCard from './BlockCard.vue'
import { netsOf } from './nets'
import { layOutRail } from './railLayout'

const props = defineProps<{ bus: BusView; width: number }>()
const net = defineModel<string>('net')
const context = usePlatform()
/** A bus behind a bridge stands a step further in. */
const STEP = 28
const indent = computed(() => props.bus.depth * STEP)
const layout = computed(() => layOutRail(props.bus.slots, props.width - indent.value))
const isSelected = computed(() => context.selected.value === `bus ${props.bus.name}`)
/** Where the bridge shows this bus, as the outermost initiator sees it. */
const bridge = computed(() => props.bus.initiators.find((each) => each.bridge))

/** The initiator whose world is shown: it is selected, as block.interface. */
const chosen = computed(() => props.bus.initiators.find((each) => context.selected.value === ref(each)))

function ref(initiator: InitiatorView): string {
    return `${initiator.block}.${initiator.busInterface}`
}

/** Where the window of a bridge is, on the bus before it. */
function from(initiator: InitiatorView): string {
    for (const bus of context.platform.value?.buses ?? []) {
        const window = bus.slots.find((slot) => slot.target?.block === initiator.block)
        if (window) {
            return `${bus.name} ${window.base}`
        }
    }
    return 'bridge'
}

function faded(target: TargetView): boolean {
    return (
        chosen.value !== undefined && !chosen.value.reaches.includes(`${target.block}.${target.busInterface}`)
    )
}

function lit(block: string): boolean {
    const platform = context.platform.value
    return net.value !== undefined && platform !== undefined && netsOf(platform, block).has(net.value)
}

function addAt(base: string): void {
    open.addAt = { base, bus: props.bus.name }
    open.add = true
}
</script>

<template>
    <section :aria-label="`Bus ${bus.name}`" class="mb-2" :style="{ marginLeft: `${indent}px` }">
        <div class="flex gap-3 pl-2">
            <div v-for="initiator in bus.initiators" :key="ref(initiator)" class="w-[150px]">
                <button
                    class="sheet block w-full px-2.5 py-1 text-left hover:border-accent"
                    :class="[
                        context.selected.value === ref(initiator) ? 'border-accent ring-1 ring-accent' : '',
                        lit(initiator.block) ? 'bg-accent-soft' : '',
                        chosen && chosen !== initiator ? 'opacity-45' : '',
                    ]"
                    data-card
                    :aria-pressed="context.selected.value === ref(initiator)"
                    @click="context.selected.value = ref(initiator)"
                >
                    <span class="block font-semibold">{{ initiator.block }}</span>
                    <span class="block text-[13px] text-soft">
                        {{
                            initiator.bridge
                                ? from(initiator)
                                : (initiator.label.split(' · ')[1] ?? 'initiator')
                        }}
                        <span v-if="initiator.adapters.length" :title="initiator.adapters.join('\n')"
                            >· adapted</span
                        >
                    </span>
                </button>
                <svg width="150" height="22" aria-hidden="true" class="text-ink">
                    <path d="M75 0v15" stroke="currentColor" stroke-width="2" />
                    <path d="M70 13h10l-5 9z" fill="currentColor" />
                </svg>
            </div>
            <p v-if="bus.initiators.length === 0" class="pb-3 text-warn">No initiator is on this bus yet.</p>
            <p class="flex-1 self-end pb-1 text-right text-[13px] text-soft">
                <button
                    class="rounded px-1 font-semibold text-ink hover:text-accent"
                    :class="isSelected ? 'bg-accent-soft text-accent' : ''"
                    :aria-pressed="isSelected"
                    title="Protocol, widths and adapters of the bus"
                    @click="context.selected.value = `bus ${bus.name}`"
                >
                    {{ bus.name }}
                </button>
                {{ bus.protocolTitle }} · {{ bus.dataWidth }}-bit data · {{ bus.addressWidth }}-bit addresses
                <template v-if="bridge"> · addresses count from the window of {{ bridge.block }}</template>
            </p>
        </div>
        <div class="relative" :style="{ height: `${layout.height}px`, width: `${width - indent}px` }">
            <template v-for="(row, at) in layout.rows" :key="at">
                <template v-for="item in row.items" :key="item.slot.base + (item.slot.target?.label ?? '')">
                    <div
                        v-if="item.slot.target"
                        class="absolute h-[5px] bg-ink"
                        :style="{ left: `${item.x - 4}px`, top: `${row.y}px`, width: `${item.width + 8}px` }"
                    ></div>
                    <BlockCard
                        v-if="item.slot.target"
                        v-model:net="net"
                        class="absolute"
                        :style="{ left: `${item.x}px`, top: `${row.y + 5}px`, width: `${item.width}px` }"
                        :target="item.slot.target"
                        :faded="faded(item.slot.target)"
                        :lit="lit(item.slot.target.block)"
                    />
                    <button
                        v-else
                        class="group absolute flex h-[100px] flex-col text-center"
                        :style="{ left: `${item.x}px`, top: `${row.y}px`, width: `${item.width}px` }"
                        :title="`Free from ${item.slot.base} to ${item.slot.last}: add a block here`"
                        @click="addAt(item.slot.base)"
                    >
                        <span
                            class="block h-[5px] [background:repeating-linear-gradient(90deg,var(--soft)_0_3px,transparent_3px_7px)]"
                        ></span>
                        <span class="mt-1 block font-mono text-[12px] text-soft group-hover:text-accent">
                            {{ item.slot.size }}
                        </span>
                        <span class="block text-[12px] text-soft group-hover:text-accent">free</span>
                    </button>
                </template>
                <span
                    v-if="at < layout.rows.length - 1"
                    class="absolute font-mono text-soft"
                    :style="{ left: `${row.width + 6}px`, top: `${row.y - 9}px` }"
                    aria-hidden="true"
                    >↵</span
                >
            </template>
        </div>
        <div v-if="bus.unplaced.length" class="flex flex-wrap items-center gap-2 pb-2">
            <span class="text-[13px] text-error">Without an address:</span>
            <button
                v-for="target in bus.unplaced"
                :key="target.label"
                class="button"
                @click="context.selected.value = target.block"
            >
                {{ target.label }} · {{ target.size }}
            </button>
        </div>
    </section>
</template>
