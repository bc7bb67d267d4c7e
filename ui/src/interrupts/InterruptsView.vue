<script setup lang="ts">
import { computed } from 'vue'
import { answer, client, type InterruptPortView, type SourceView } from '../api/client'
import FindField from '../frame/FindField.vue'
import { usePlatform } from '../frame/platform'
import { useRevisionQuery } from '../frame/revisionQuery'
import { vScrolls } from '../frame/scrolls'
import { useTableView } from '../frame/tableView'
import InterruptGrid from './InterruptGrid.vue'
import SourceDetails from './SourceDetails.vue'

const context = usePlatform()
const { data: interrupts, error } = useRevisionQuery('interrupts', (id, at) =>
    answer(client.GET('/api/platforms/{id}/interrupts', { params: { path: { id }, query: { at } } })),
)
const controllers = computed(() => interrupts.value?.ports.filter((port) => port.numbered) ?? [])
const lines = computed(() => interrupts.value?.ports.filter((port) => !port.numbered) ?? [])
const chosen = computed(() =>
    interrupts.value?.sources.find((source) => `${source.block}.${source.name}` === context.selected.value),
)
const chosenPort = computed(() =>
    interrupts.value?.ports.find(
        (port) => port.block === chosen.value?.sinkBlock && port.name === chosen.value.sink,
    ),
)

const { find, order, shown } = useTableView<SourceView>(
    () => interrupts.value?.sources ?? [],
    (source) =>
        [`${source.block}.${source.name}`, source.trigger, source.sinkBlock ?? 'open', source.line].join(' '),
    {
        source: (source) => `${source.block}.${source.name}`,
        input: (source) => source.input,
        trigger: (source) => source.trigger,
    },
)

/** Sources of devices, and other controllers, whose line can go into one: they then come in cascade. */
function sourcesFor(port: InterruptPortView): SourceView[] {
    const several = controllers.value.length > 1
    return shown.value.filter(
        (source) =>
            source.line === port.line ||
            (several && source.line === 'external' && source.block !== port.block),
    )
}

/** Sources of the sort of lines that go straight into a hart, and that go nowhere. */
const open = computed(() =>
    (interrupts.value?.sources ?? []).filter(
        (source) => !source.sinkBlock && lines.value.some((line) => line.line === source.line),
    ),
)

function driverOf(block: string, name: string): string[] {
    return (interrupts.value?.sources ?? [])
        .filter((source) => source.sinkBlock === block && source.sink === name)
        .map((source) => `${source.block}.${source.name}`)
}
</script>

<template>
    <div v-scrolls class="h-full overflow-auto px-5 py-4">
        <p v-if="error && !interrupts" class="mt-16 text-center text-error">{{ error.message }}</p>
        <div
            v-else-if="interrupts && interrupts.sources.length + interrupts.ports.length === 0"
            class="sheet mx-auto mt-16 max-w-xl p-10 text-center"
        >
            <p class="text-lg font-semibold">Nothing interrupts yet</p>
            <p class="mt-1 text-soft">
                Sources come with peripherals, inputs with a processor and a controller.
            </p>
            <RouterLink :to="`/p/${context.id}/compose`" class="button-main mt-4">Go to Compose</RouterLink>
        </div>
        <div
            v-else-if="interrupts"
            class="grid grid-cols-[minmax(0,1fr)_330px] max-[1100px]:grid-cols-1 gap-6"
        >
            <div class="flex min-w-0 flex-col gap-6">
                <p v-if="controllers.length === 0" class="text-soft">
                    There is no interrupt controller; sources of devices need one to get to a hart.
                </p>
                <div v-if="controllers.length" class="-mb-3 flex items-center gap-4">
                    <FindField
                        v-model="find"
                        label="Find a source"
                        :found="shown.length"
                        :all="interrupts.sources.length"
                    />
                    <span class="flex items-center gap-2 text-[13px]">
                        <span aria-hidden="true">sorted by</span>
                        <select
                            class="input !py-0.5"
                            aria-label="Order of the sources"
                            :value="order.by ?? ''"
                            @change="
                                order = {
                                    by: ($event.target as HTMLSelectElement).value || undefined,
                                    descends: false,
                                }
                            "
                        >
                            <option value="">block</option>
                            <option value="source">name</option>
                            <option value="input">IRQ number</option>
                            <option value="trigger">trigger</option>
                        </select>
                    </span>
                </div>
                <InterruptGrid
                    v-for="port in controllers"
                    :key="`${port.block}.${port.name}`"
                    :port="port"
                    :sources="sourcesFor(port)"
                    :all="interrupts.sources"
                />
                <section v-if="lines.length" aria-label="Lines of the harts">
                    <h2 class="heading">At the harts</h2>
                    <p class="mt-1 text-[13px] text-soft">
                        Software reads the cause in mcause, with the highest bit set (RISC-V Privileged ISA).
                    </p>
                    <p v-if="open.length" class="mt-1 text-[14px]">
                        <span class="tag !border-warn !text-warn">not connected</span>
                        <button
                            v-for="source in open"
                            :key="source.block + source.name"
                            class="ml-3 font-mono text-[13px] font-semibold hover:text-accent"
                            @click="context.selected.value = `${source.block}.${source.name}`"
                        >
                            {{ source.block }}.{{ source.name }}
                        </button>
                    </p>
                    <table class="mt-1 w-full text-[14px]">
                        <tbody>
                            <tr v-for="line in lines" :key="line.block + line.name">
                                <td class="min-w-44 py-0.5 pr-4 font-mono text-[13px] font-semibold">
                                    {{ line.block }}.{{ line.name }}
                                </td>
                                <td class="w-24 text-soft">cause {{ line.inputs[0]?.software }}</td>
                                <td class="font-mono text-[13px]">
                                    {{ driverOf(line.block, line.name).join(', ') || 'not connected' }}
                                </td>
                            </tr>
                        </tbody>
                    </table>
                </section>
            </div>
            <SourceDetails :source="chosen" :port="chosenPort" />
        </div>
        <p v-else class="mt-24 text-center text-soft">Working out the interrupts…</p>
    </div>
</template>
