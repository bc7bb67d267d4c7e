<script setup lang="ts">
import type { InterruptPortView, SourceView } from '../api/client'
import { computed, ref } from 'vue'
import type { Edit } from '../api/client'
import DialogFrame from '../frame/DialogFrame.vue'
import { tell } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'

/** @property all sources, also those that are not shown: they can be on an input that is pressed */
const props = defineProps<{ port: InterruptPortView; sources: SourceView[]; all: SourceView[] }>()
const context = usePlatform()

const isHere = (source: SourceView) =>
    source.sinkBlock === props.port.block && source.sink === props.port.name

function name(source: SourceView): string {
    return `${source.block}.${source.name}`
}

const connecting = (source: SourceView, input: number): Edit => ({
    edit: 'connect-interrupt',
    block: source.block,
    source: source.name,
    sinkBlock: props.port.block,
    sink: props.port.name,
    input,
})
const disconnecting = (source: SourceView): Edit => ({
    edit: 'disconnect-interrupt',
    block: source.block,
    source: source.name,
})

/** An input that another source is on: what is to become of that. */
const asked = ref<{ source: SourceView; other: SourceView; input: number }>()
const title = computed(() => {
    const { other, input } = asked.value ?? {}
    const software = props.port.inputs.find((each) => each.input === input)?.software
    return other ? `IRQ ${String(software)} is taken by ${name(other)}` : ''
})
const freeInput = computed(() => {
    const taken = new Set(props.all.filter(isHere).map((each) => each.input))
    return props.port.inputs.find((each) => each.exists && !taken.has(each.input))?.input
})

async function toggle(source: SourceView, input: number): Promise<void> {
    context.selected.value = name(source)
    if (isHere(source) && source.input === input) {
        if (await context.edit(disconnecting(source))) {
            tell('done', 'Disconnected', `${name(source)}; press the cell again to connect it, or undo`)
        }
        return
    }
    const other = props.all.find((each) => each !== source && isHere(each) && each.input === input)
    if (other) {
        asked.value = { source, other, input }
    } else {
        await context.edit(connecting(source, input))
    }
}

/** What can become of the source that is on the input; the likeliest first. */
const ways = computed(() => {
    const now = asked.value
    if (!now) {
        return []
    }
    const { source, other, input } = now
    const mine = name(source)
    const its = name(other)
    const ways: { label: string; title: string; edits: Edit[] }[] = []
    if (isHere(source) && source.input !== null && source.input !== undefined) {
        ways.push({
            label: `Swap: ${its} to input ${String(source.input)}`,
            title: `swap ${mine} and ${its}`,
            edits: [connecting(source, input), connecting(other, source.input)],
        })
    }
    if (freeInput.value !== undefined) {
        ways.push({
            label: `Move ${its} to the free input ${String(freeInput.value)}`,
            title: `connect ${mine}, move ${its}`,
            edits: [connecting(other, freeInput.value), connecting(source, input)],
        })
    }
    ways.push({
        label: `Disconnect ${its}`,
        title: `connect ${mine} in place of ${its}`,
        edits: [disconnecting(other), connecting(source, input)],
    })
    return ways
})

async function take(way: { title: string; edits: Edit[] }): Promise<void> {
    asked.value = undefined
    await context.edit({ edit: 'several', title: way.title, edits: way.edits })
}

/** The arrow keys go from cell to cell. */
function move(event: KeyboardEvent): void {
    const step = { ArrowRight: [0, 1], ArrowLeft: [0, -1], ArrowDown: [1, 0], ArrowUp: [-1, 0] }[event.key]
    const cell = (event.target as HTMLElement).closest('td')
    if (!step || !cell) {
        return
    }
    event.preventDefault()
    const row = cell.parentElement as HTMLTableRowElement
    const rows = row.parentElement as HTMLTableSectionElement
    rows.rows[row.sectionRowIndex + (step[0] ?? 0)]?.cells[cell.cellIndex + (step[1] ?? 0)]
        ?.querySelector('button')
        ?.focus()
}
</script>

<template>
    <section :aria-label="`Inputs of ${port.block}`" class="min-w-0">
        <h2 class="heading">{{ port.block }} · {{ port.title }}</h2>
        <p class="mt-1 text-[13px] text-soft">
            A filled cell connects a source to an input. Press another cell to move it, the filled one to
            disconnect it.
            {{ port.unused === 1 ? 'One input is' : `${port.unused} inputs are` }} unused<template
                v-if="port.hidden"
                >, {{ port.hidden }} of them not shown</template
            >.
        </p>
        <div v-scrolls class="mt-2 overflow-x-auto">
            <table class="border-separate border-spacing-0" @keydown="move">
                <thead>
                    <tr>
                        <th scope="row" class="pr-3 text-right text-[12px] font-normal text-soft">
                            IRQ number
                        </th>
                        <th
                            v-for="input in port.inputs"
                            :key="input.input"
                            scope="col"
                            class="w-8 pb-0.5 text-center font-mono text-[13px]"
                            :class="input.shared || !input.exists ? 'text-error' : ''"
                        >
                            {{ input.software }}
                        </th>
                        <th></th>
                    </tr>
                    <tr>
                        <th scope="row" class="pr-3 pb-1 text-right text-[12px] font-normal text-soft">
                            hardware input
                        </th>
                        <th
                            v-for="input in port.inputs"
                            :key="input.input"
                            class="w-8 pb-1 text-center font-mono text-[12px] font-normal text-soft"
                        >
                            {{ input.hardware }}
                        </th>
                        <th class="pb-1 pl-3 text-left text-[12px] font-normal text-soft">trigger</th>
                    </tr>
                </thead>
                <tbody>
                    <tr
                        v-for="source in sources"
                        :key="name(source)"
                        :class="context.selected.value === name(source) ? 'bg-accent-soft' : ''"
                    >
                        <th scope="row" class="pr-3 text-right font-normal whitespace-nowrap">
                            <button
                                class="font-mono text-[13px] font-semibold hover:text-accent"
                                @click="context.selected.value = name(source)"
                            >
                                {{ name(source) }}
                            </button>
                        </th>
                        <td v-for="input in port.inputs" :key="input.input" class="p-0">
                            <button
                                class="flex h-7 w-8 items-center justify-center border-t border-l border-line hover:bg-accent-soft"
                                :class="input.input % 2 ? 'bg-sheet' : 'bg-sunken'"
                                :aria-label="`${name(source)} to ${input.software}`"
                                :aria-pressed="isHere(source) && source.input === input.input"
                                :title="`${name(source)} to IRQ ${input.software}, hardware input ${input.hardware}`"
                                @click="toggle(source, input.input)"
                            >
                                <span
                                    v-if="isHere(source) && source.input === input.input"
                                    class="size-3.5 rounded-sm"
                                    :class="input.shared || !input.exists ? 'bg-error' : 'bg-accent'"
                                ></span>
                            </button>
                        </td>
                        <td class="pl-3 text-[13px] whitespace-nowrap text-soft">
                            {{ source.trigger }}
                            <span v-if="!source.sinkBlock" class="tag !border-warn !text-warn">open</span>
                            <span v-else-if="!isHere(source)" class="tag">at {{ source.sinkBlock }}</span>
                            <span v-if="source.crossing" class="tag" :title="source.crossing">crosses</span>
                        </td>
                    </tr>
                </tbody>
            </table>
        </div>
        <DialogFrame :open="asked !== undefined" :title="title" :width="560" @close="asked = undefined">
            <div class="mt-3 flex flex-col items-start gap-2">
                <button v-for="way in ways" :key="way.label" class="button" @click="take(way)">
                    {{ way.label }}
                </button>
            </div>
            <template #buttons>
                <button class="button" @click="asked = undefined">Cancel</button>
            </template>
        </DialogFrame>
    </section>
</template>
