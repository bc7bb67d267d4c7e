<script setup lang="ts">
import { computed } from 'vue'
import type { BusView, InitiatorView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { usePicture } from './picture'

const props = defineProps<{ bus: BusView }>()
const context = usePlatform()
const picture = usePicture()
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
</script>

<template>
    <div class="flex flex-wrap items-end gap-x-3 pl-2">
        <div v-for="initiator in bus.initiators" :key="ref(initiator)" class="max-w-full">
            <button
                class="sheet flex max-w-[230px] items-baseline px-2.5 py-0.5 text-left hover:border-accent"
                :class="[
                    context.selected.value === ref(initiator) ? 'border-accent ring-1 ring-accent' : '',
                    picture.lit.value?.has(initiator.block) ? 'bg-accent-soft' : '',
                    chosen && chosen !== initiator ? 'opacity-45' : '',
                ]"
                :title="[initiator.label, ...initiator.adapters].join('\n')"
                data-card
                :aria-pressed="context.selected.value === ref(initiator)"
                @click="context.selected.value = ref(initiator)"
            >
                <span class="min-w-0 truncate font-semibold">{{ initiator.block }}</span>
                <span class="ml-2 text-[13px] whitespace-nowrap text-soft">{{
                    initiator.bridge ? from(initiator) : (initiator.label.split(' · ')[1] ?? 'initiator')
                }}</span>
            </button>
            <svg width="40" height="14" aria-hidden="true" class="text-ink">
                <path d="M24 0v7" stroke="currentColor" stroke-width="2" />
                <path d="M19 6h10l-5 8z" fill="currentColor" />
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
            <template v-if="bridge">
                · behind {{ bridge.block }}, addresses as the processor uses them</template
            >
        </p>
    </div>
</template>
