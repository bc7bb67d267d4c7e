<script setup lang="ts">
import { TrashIcon } from '@heroicons/vue/20/solid'
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import type { Edit, BlockSheet, InterfaceView, InterruptView, OutwardView } from '../api/client'
import { open } from '../frame/actions'
import EditableName from '../frame/EditableName.vue'
import { copy } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import AddressField from './AddressField.vue'
import { focusCard } from './focusCard'
import ParameterField from './ParameterField.vue'
import RegisterList from './RegisterList.vue'
import StreamEnds from './StreamEnds.vue'
import VersionRow from './VersionRow.vue'
import { useSelection } from './selection'
import { vTyped } from '../frame/typedText'

const props = defineProps<{ block: BlockSheet }>()
const context = usePlatform()
const platform = computed(() => context.platform.value)
const targets = computed(() => props.block.interfaces.filter((form) => form.role === 'target'))
const initiators = computed(() => props.block.interfaces.filter((form) => form.role === 'initiator'))

async function rename(name: string): Promise<void> {
    if (await context.edit({ edit: 'rename-block', block: props.block.name, name })) {
        context.selected.value = name
        focusCard(name)
    }
}

const nameField = useTemplateRef<{ begin: () => Promise<void> }>('name')
watch(
    () => open.forSelection,
    async (what) => {
        if (what === 'rename') {
            open.forSelection = undefined
            await nextTick()
            await nameField.value?.begin()
        }
    },
    { immediate: true },
)

const selection = useSelection()

/** How the first initiator gets to it through bridges: then the address on its own bus is an offset. */
const behindBridge = (form: InterfaceView): InterfaceView['reachedBy'][number] | undefined =>
    form.reachedBy.find((reach) => reach.via.length)

const attachment = (form: InterfaceView, base: string, held: boolean): Edit => ({
    edit: 'attach',
    block: props.block.name,
    busInterface: form.name,
    bus: form.bus,
    base,
    held,
})

function onBus(form: InterfaceView, bus: string): void {
    void context.edit(
        bus
            ? { edit: 'attach', block: props.block.name, busInterface: form.name, bus }
            : { edit: 'detach', block: props.block.name, busInterface: form.name },
    )
}

function toSink(wire: InterruptView, choice: string): void {
    const sink = wire.choices.find((each) => `${each.block}.${each.sink}` === choice)
    void context.edit(
        sink
            ? {
                  edit: 'connect-interrupt',
                  block: props.block.name,
                  source: wire.name,
                  sinkBlock: sink.block,
                  sink: sink.sink,
                  input: sink.free ?? sink.first,
              }
            : { edit: 'disconnect-interrupt', block: props.block.name, source: wire.name },
    )
}

function toInput(wire: InterruptView, text: string): void {
    const input = Number(text)
    if (Number.isInteger(input)) {
        void context.edit({
            edit: 'connect-interrupt',
            block: props.block.name,
            source: wire.name,
            sinkBlock: wire.sinkBlock,
            sink: wire.sink,
            input,
        })
    }
}

function toPart(outward: OutwardView, part: string): void {
    void context.edit(
        part
            ? { edit: 'bind-part', block: props.block.name, outward: outward.name, part }
            : { edit: 'unbind', block: props.block.name, outward: outward.name },
    )
}

function toDomain(port: string, domain: string): void {
    void context.edit({ edit: 'set-domain', block: props.block.name, port, ...(domain ? { domain } : {}) })
}

const valueOf = (event: Event): string => (event.target as HTMLInputElement | HTMLSelectElement).value
</script>

<template>
    <aside
        class="flex w-[336px] shrink-0 max-[1000px]:w-[270px] flex-col gap-4 overflow-y-auto border-l border-line bg-sheet p-4"
        aria-label="Inspector"
    >
        <div>
            <div class="flex items-center gap-2">
                <EditableName
                    ref="name"
                    label="Name of the block"
                    class="min-w-0 flex-1 text-xl font-semibold"
                    :value="block.name"
                    @change="rename"
                />
                <button
                    class="text-soft hover:text-error"
                    :aria-label="`Remove ${block.name}`"
                    title="Remove (Del)"
                    @click="selection.remove"
                >
                    <TrashIcon class="size-5" />
                </button>
            </div>
            <VersionRow :block="block" />
            <p v-if="block.group" class="px-1 text-[13px] text-soft">
                in group
                <button
                    class="text-accent hover:underline"
                    @click="context.selected.value = `group ${block.group}`"
                >
                    {{ block.group }}
                </button>
            </p>
            <p class="px-1 text-[13px] text-soft">{{ block.summary }}</p>
        </div>
        <section v-if="block.parameters.length">
            <h2 class="heading">Parameters</h2>
            <ParameterField
                v-for="value in block.parameters"
                :key="value.parameter.name"
                :block="block.name"
                :value="value"
            />
        </section>
        <section v-for="form in targets" :key="form.name">
            <h2 class="heading">
                {{
                    targets.length > 1 ? `Where software finds its ${form.title}` : 'Where software finds it'
                }}
            </h2>
            <template v-if="form.bus">
                <div v-if="behindBridge(form)" class="grid grid-cols-[96px_1fr] items-center py-0.5">
                    <span>address</span>
                    <span class="px-2 font-mono text-[13px] font-semibold">{{
                        behindBridge(form)?.base
                    }}</span>
                    <span>from</span>
                    <span class="px-2 text-[13px] text-soft"
                        >{{ behindBridge(form)?.initiator }}, through
                        {{ behindBridge(form)?.via.join(', ') }}</span
                    >
                </div>
                <AddressField
                    address
                    :label="behindBridge(form) ? 'offset' : 'base'"
                    :value="form.base ?? ''"
                    :write="(base: string) => context.tryEdit(attachment(form, base, form.held))"
                />
                <div class="grid grid-cols-[96px_1fr] items-center py-0.5">
                    <span>{{ behindBridge(form) ? 'last offset' : 'last' }}</span>
                    <span class="px-2 font-mono text-[13px]">{{ form.last ?? '—' }}</span>
                    <span>size</span>
                    <span class="px-2 font-mono text-[13px]">{{ form.size }}</span>
                </div>
                <label class="flex items-center gap-2 py-0.5">
                    <span class="w-[88px]">locked</span>
                    <input
                        type="checkbox"
                        class="size-4 accent-[var(--accent)]"
                        :checked="form.held"
                        :disabled="!form.base"
                        @change="context.edit(attachment(form, form.base ?? '', !form.held))"
                    />
                    <span class="text-[13px] text-soft">kept by automatic placement</span>
                </label>
            </template>
            <p v-if="form.inside" class="py-0.5 text-[13px] text-soft">
                Inside the block, always at <span class="font-mono text-ink">{{ form.base }}</span>,
                {{ form.size }}.
            </p>
            <label v-else class="grid grid-cols-[96px_1fr] items-center py-0.5">
                <span>bus</span>
                <select class="input" :value="form.bus ?? ''" @change="onBus(form, valueOf($event))">
                    <option value="">none</option>
                    <option v-for="bus in platform?.buses" :key="bus.name">{{ bus.name }}</option>
                </select>
            </label>
            <p v-for="adapter in form.adapters" :key="adapter" class="mt-1 text-[13px] text-soft">
                Adapter: {{ adapter }}
            </p>
            <p v-if="form.reachedBy.length === 0" class="mt-1 text-[13px] text-soft">
                {{
                    block.kind === 'bridge'
                        ? 'Its window shows the bus behind it.'
                        : 'Not reachable from any initiator.'
                }}
            </p>
            <p
                v-for="reach in form.reachedBy.filter((each) => each !== behindBridge(form))"
                :key="reach.initiator"
                class="mt-1 text-[13px] text-soft"
            >
                Reached by {{ reach.initiator }}
                <template v-if="reach.via.length">
                    at <span class="font-mono">{{ reach.base }}</span> through {{ reach.via.join(', ') }}
                </template>
            </p>
        </section>
        <section v-if="initiators.length">
            <h2 class="heading">Initiators</h2>
            <label
                v-for="form in initiators"
                :key="form.name"
                class="grid grid-cols-[136px_1fr] items-center py-0.5"
            >
                <span>{{ form.title }}</span>
                <select class="input" :value="form.bus ?? ''" @change="onBus(form, valueOf($event))">
                    <option value="">no bus</option>
                    <option v-for="bus in platform?.buses" :key="bus.name">{{ bus.name }}</option>
                </select>
            </label>
        </section>
        <StreamEnds v-if="block.streams.length" :block="block" />
        <section v-if="block.interrupts.length">
            <h2 class="heading">Interrupts</h2>
            <div v-for="wire in block.interrupts" :key="wire.name" class="flex items-center gap-2 py-0.5">
                <span class="w-[88px] shrink-0">{{ wire.name }}</span>
                <select
                    class="input min-w-0 flex-1"
                    :aria-label="`Where ${wire.name} goes`"
                    :value="wire.sinkBlock ? `${wire.sinkBlock}.${wire.sink}` : ''"
                    @change="toSink(wire, valueOf($event))"
                >
                    <option value="">nowhere</option>
                    <option v-for="sink in wire.choices" :key="sink.block + sink.sink">
                        {{ sink.block }}.{{ sink.sink }}
                    </option>
                </select>
                <input
                    v-if="wire.sinkBlock && wire.line === 'device'"
                    v-typed="wire.input"
                    class="input w-14 font-mono"
                    :aria-label="`Input of ${wire.name}`"
                    inputmode="numeric"
                    @change="toInput(wire, valueOf($event))"
                />
            </div>
        </section>
        <section v-if="block.outward.length">
            <h2 class="heading">External ports</h2>
            <div v-for="outward in block.outward" :key="outward.name" class="py-0.5">
                <label class="grid grid-cols-[96px_1fr] items-center">
                    <span>{{ outward.title }}</span>
                    <select
                        class="input"
                        :value="outward.part ?? ''"
                        @change="toPart(outward, valueOf($event))"
                    >
                        <option value="">
                            {{ outward.bound && !outward.part ? 'pins by hand' : 'open' }}
                        </option>
                        <option v-if="outward.part">{{ outward.part }}</option>
                        <option v-for="part in outward.partChoices" :key="part">{{ part }}</option>
                    </select>
                </label>
                <p v-for="pins in outward.pins" :key="pins" class="mt-0.5 font-mono text-[12px] text-soft">
                    {{ pins }}
                </p>
                <p v-if="!outward.pins.length" class="mt-0.5 font-mono text-[12px] text-soft">
                    {{ outward.ports.join(' · ') }}
                </p>
            </div>
        </section>
        <section v-if="block.clocks.length">
            <h2 class="heading">Clock and reset</h2>
            <label
                v-for="port in block.clocks"
                :key="port.name"
                class="grid grid-cols-[96px_1fr] items-center py-0.5"
            >
                <span
                    >{{ port.name }} <span class="text-[12px] text-soft">{{ port.sort }}</span></span
                >
                <select
                    class="input"
                    :value="port.domain ?? ''"
                    @change="toDomain(port.name, valueOf($event))"
                >
                    <option value="">none</option>
                    <option v-for="domain in platform?.domains" :key="domain.name">{{ domain.name }}</option>
                </select>
            </label>
        </section>
        <RegisterList v-if="block.registers.length" :block="block" @copy="copy" />
        <section v-if="block.resources.length">
            <h2 class="heading">Estimated use of the device</h2>
            <div
                v-for="resource in block.resources"
                :key="resource.name"
                class="flex justify-between py-0.5 text-[13px]"
            >
                <span>{{ resource.name }}</span>
                <span class="font-mono">{{ resource.amount.toLocaleString('en') }}</span>
            </div>
        </section>
    </aside>
</template>
