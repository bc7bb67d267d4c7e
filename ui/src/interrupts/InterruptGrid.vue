<script setup lang="ts">
import type { InterruptPortView, SourceView } from '../api/client'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ port: InterruptPortView; sources: SourceView[] }>()
const context = usePlatform()

const isHere = (source: SourceView) =>
    source.sinkBlock === props.port.block && source.sink === props.port.name

function name(source: SourceView): string {
    return `${source.block}.${source.name}`
}

async function toggle(source: SourceView, input: number): Promise<void> {
    context.selected.value = name(source)
    if (isHere(source) && source.input === input) {
        await context.edit({ edit: 'disconnect-interrupt', block: source.block, source: source.name })
    } else {
        await context.edit({
            edit: 'connect-interrupt',
            block: source.block,
            source: source.name,
            sinkBlock: props.port.block,
            sink: props.port.name,
            input,
        })
    }
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
            A filled cell leads a source to an input; press another to move it.
            {{ port.unused === 1 ? 'One input is' : `${port.unused} inputs are` }} unused<template
                v-if="port.hidden"
                >, {{ port.hidden }} of them not shown</template
            >.
        </p>
        <div class="mt-2 overflow-x-auto">
            <table class="border-separate border-spacing-0" @keydown="move">
                <thead>
                    <tr>
                        <th scope="row" class="pr-3 text-right text-[12px] font-normal text-soft">
                            number for software
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
                            line of the hardware
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
                                :title="`${name(source)} to number ${input.software}, line ${input.hardware}`"
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
    </section>
</template>
