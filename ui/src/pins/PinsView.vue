<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, shallowRef } from 'vue'
import { answer, client, type PinImportView, type PinLineView, type PinPlanView } from '../api/client'
import DialogFrame from '../frame/DialogFrame.vue'
import FindField from '../frame/FindField.vue'
import { tell, tellProblem } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import { useRevisionQuery } from '../frame/revisionQuery'
import { vScrolls } from '../frame/scrolls'
import { useTableView } from '../frame/tableView'
import PackageMap from './PackageMap.vue'
import PinLines from './PinLines.vue'

const context = usePlatform()
const { data: pins, error } = useRevisionQuery('pins', (id, at) =>
    answer(client.GET('/api/platforms/{id}/pins', { params: { path: { id }, query: { at } } })),
)
const table = ref<InstanceType<typeof PinLines>>()
/** Lines without a pin come first; one that gets a pin stays where it is as long as the view is open. */
const places = new Map<string, number>()
const lines = computed(() => {
    const all = pins.value?.lines ?? []
    for (const line of all) {
        if (!places.has(line.port)) {
            places.set(line.port, places.size)
        }
    }
    return [...all].sort((one, other) => (places.get(one.port) ?? 0) - (places.get(other.port) ?? 0))
})
const { find, order, shown } = useTableView<PinLineView>(
    () => lines.value,
    (line) =>
        [
            line.port,
            line.pin,
            line.bank,
            line.standard,
            line.direction,
            line.by,
            line.pin ? '' : 'no pin',
        ].join(' '),
    {
        line: (line) => line.port,
        pin: (line) => line.pin,
        bank: (line) => line.bank,
        standard: (line) => line.standard,
        from: (line) => line.by,
    },
)
const path = { params: { path: { id: context.id } } }
const plan = shallowRef<PinPlanView>()
const imported = shallowRef<PinImportView>()
const picker = ref<HTMLInputElement>()
const { data: handoff } = useQuery({
    queryKey: computed(() => ['handoff', context.id, context.platform.value?.revision]),
    queryFn: () => answer(client.GET('/api/platforms/{id}/handoff', path)),
})
/** The table as the hand-off has it. */
const csv = computed(() => {
    const file = handoff.value?.files.find((each) => each.path.endsWith('_pins.csv'))
    return file && `/api/platforms/${context.id}/handoff/file?path=${encodeURIComponent(file.path)}`
})

async function propose(): Promise<void> {
    try {
        plan.value = await answer(client.GET('/api/platforms/{id}/pins/plan', path))
    } catch (problem) {
        tellProblem(problem)
    }
}

async function assign(): Promise<void> {
    const given = plan.value
    plan.value = undefined
    if (given) {
        await context.edit(given.edit as { edit: string }, given.revision)
    }
}

async function read(event: Event): Promise<void> {
    const input = event.target as HTMLInputElement
    const file = input.files?.[0]
    input.value = ''
    if (!file || context.refuses()) {
        return
    }
    try {
        const table = await file.text()
        const found = await answer(
            client.POST('/api/platforms/{id}/pins/import', {
                ...path,
                body: table,
                bodySerializer: (text: string) => text,
                headers: { 'Content-Type': 'text/plain' },
            }),
        )
        if (found.problems.length) {
            imported.value = found
        } else if (found.edit) {
            await context.edit(found.edit as { edit: string }, found.revision)
            tell('done', 'Pins taken', `From ${file.name}; undo takes it back.`)
        } else {
            tell('done', 'Nothing to change', `${file.name} says what is so already.`)
        }
    } catch (problem) {
        tellProblem(problem)
    }
}
</script>

<template>
    <div class="h-full overflow-auto px-5 py-4">
        <p v-if="error && !pins" class="mt-16 text-center text-error">{{ error.message }}</p>
        <div
            v-else-if="pins"
            class="grid grid-cols-[minmax(0,1fr)_minmax(380px,460px)] max-[1100px]:grid-cols-1 gap-8"
        >
            <section aria-label="Lines that leave the chip" class="min-w-0">
                <div class="flex flex-wrap items-center gap-2">
                    <p class="flex-1">
                        <strong>{{ pins.lines.length }}</strong> lines leave the chip,
                        <span :class="pins.open ? 'font-semibold text-warn' : ''"
                            >{{ pins.open === 0 ? 'all' : pins.open }}
                            {{ pins.open === 0 ? 'with a pin' : 'without a pin' }}</span
                        >.
                    </p>
                    <FindField
                        v-model="find"
                        label="Find a line"
                        :found="shown.length"
                        :all="pins.lines.length"
                    />
                    <button class="button-main" :disabled="pins.open === 0" @click="propose">
                        Assign the rest…
                    </button>
                    <a v-if="csv" class="button" :href="csv" download>Export</a>
                    <button class="button" @click="picker?.click()">Import…</button>
                    <input
                        ref="picker"
                        type="file"
                        class="sr-only"
                        accept=".csv,text/csv"
                        aria-label="Pin table"
                        tabindex="-1"
                        @change="read"
                    />
                </div>
                <PinLines
                    ref="table"
                    v-model:order="order"
                    :standards="pins.standards"
                    :lines="pins.lines"
                    :shown="shown"
                />
                <p v-if="find && shown.length === 0" class="mt-3 text-soft">
                    No line matches “{{ find }}”.
                    <button class="text-accent hover:underline" @click="find = ''">Show all lines</button>
                </p>
            </section>
            <PackageMap
                :banks="pins.banks"
                :device="pins.device"
                :picks="table?.field"
                @pick="(pin) => table?.take(pin)"
            />
        </div>
        <p v-else class="mt-24 text-center text-soft">Working out the pins…</p>
        <DialogFrame :open="plan !== undefined" title="Assign pins" :width="680" @close="plan = undefined">
            <p class="mt-1 text-soft">
                The lines of a port stay together in one bank. Pins that the board has something on are left
                alone.
            </p>
            <ul v-scrolls class="mt-2 min-h-0 flex-1 overflow-auto">
                <li v-for="each in plan?.given" :key="each.outward" class="border-b border-line py-1.5">
                    <span class="font-mono text-[13px] font-semibold">{{ each.outward }}</span>
                    <span class="ml-2 text-soft">bank {{ each.bank }}, {{ each.voltage }}</span>
                    <span class="block font-mono text-[13px]">{{ each.pins }}</span>
                </li>
                <li v-for="each in plan?.unplaceable" :key="each" class="py-1.5 text-error">
                    {{ each }}: no bank has room for all of its lines
                </li>
            </ul>
            <template #buttons>
                <button class="button" @click="plan = undefined">Cancel</button>
                <button class="button-main" :disabled="!plan?.given.length" @click="assign">Assign</button>
            </template>
        </DialogFrame>
        <DialogFrame
            :open="imported !== undefined"
            title="Import failed"
            :width="620"
            @close="imported = undefined"
        >
            <ul v-scrolls class="mt-2 min-h-0 flex-1 overflow-auto">
                <li v-for="line in imported?.problems" :key="line" class="py-0.5">{{ line }}</li>
            </ul>
            <template #buttons>
                <button class="button-main" @click="imported = undefined">Close</button>
            </template>
        </DialogFrame>
    </div>
</template>
