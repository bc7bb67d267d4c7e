<script setup lang="ts">
import {
    Combobox,
    ComboboxInput,
    ComboboxOption,
    ComboboxOptions,
    Dialog,
    DialogPanel,
} from '@headlessui/vue'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { open } from './actions'
import { answersFor } from './answersFor'
import { setGuide } from './guide'
import { copy, tellProblem } from './notices'
import { usePlatform } from './platform'
import { search, type Entry } from './search'
import { serverSearch } from './serverSearch'
import { toggleTheme } from './theme'

const context = usePlatform()
const router = useRouter()
const text = ref('')

const go = (view: string) => () => void router.push(`/p/${context.id}/${view}`)
const actions = computed<Entry[]>(() => {
    const entry = (title: string, run: () => void, shortcut = ''): Entry => ({
        key: `do ${title}`,
        title,
        detail: shortcut,
        kind: 'do',
        run,
    })
    const block = context.platform.value?.blocks.find((each) => each.name === context.selected.value)?.name
    const selected = block
        ? [
              entry(`Rename ${block}`, forSelection('rename')),
              entry(`Duplicate ${block}…`, forSelection('duplicate'), 'Ctrl D'),
              entry(`Copy ${block}`, forSelection('copy'), 'Ctrl C'),
              entry(`Remove ${block}`, forSelection('remove'), 'Del'),
          ]
        : []
    return [
        ...selected,
        entry('Add a block', () => (open.add = true), 'a'),
        entry('Show the wiring plan', () => (open.wiring = true), 'w'),
        entry('Add a bus', () => void addBus()),
        entry(`Undo ${context.platform.value?.undo ?? ''}`, () => void context.undo(), 'Ctrl Z'),
        entry(`Redo ${context.platform.value?.redo ?? ''}`, () => void context.redo(), 'Ctrl Shift Z'),
        entry('Show the findings', () => (open.findings = true)),
        entry('Go to Compose', go('compose')),
        entry('Go to Addresses', go('addresses')),
        entry('Go to Interrupts', go('interrupts')),
        entry('Go to Clocks', go('clocks')),
        entry('Go to Pins', go('pins')),
        entry('Go to Fit', go('fit')),
        entry('Go to Hardware', go('hardware')),
        entry('Go to Hand-off', go('handoff')),
        entry('Go to Boot', go('boot')),
        entry('Go to Bench', go('bench')),
        entry('Go to History', go('history')),
        entry('Go to all platforms', () => void router.push('/')),
        entry('Download the platform document', () =>
            window.location.assign(`/api/platforms/${context.id}/document`),
        ),
        entry('Guide me through a first platform', () => {
            setGuide('on', context.id)
        }),
        entry('Switch between light and dark', toggleTheme),
    ]
})

/** Compose does it, as it does with the keyboard. */
const forSelection = (what: 'rename' | 'duplicate' | 'copy' | 'remove') => (): void => {
    open.forSelection = what
    void router.push({ path: `/p/${context.id}/compose`, query: { select: context.selected.value } })
}

async function addBus(): Promise<void> {
    const platform = context.platform.value
    const names = new Set(platform?.buses.map((bus) => bus.name))
    let name = names.size ? 'bus_1' : 'system'
    for (let number = 2; names.has(name); number++) {
        name = `bus_${String(number)}`
    }
    const domain = platform?.domains[0]?.name
    const bus = {
        name,
        protocol: 'axi4-lite',
        dataWidth: 32,
        addressWidth: 32,
        ...(domain ? { domain } : {}),
    }
    if (await context.edit({ edit: 'add-bus', bus })) {
        context.selected.value = `bus ${name}`
        await router.push(`/p/${context.id}/compose`)
    }
}

function show(block: string): void {
    context.selected.value = block
    void router.push(`/p/${context.id}/compose`)
}

const { answers, waiting } = answersFor(text, serverSearch(context.id, show))

/** Answers that come later stand last, so that what Enter would do stays what it was. */
const entries = computed<Entry[]>(() => {
    const platform = context.platform.value
    const found = platform ? search(platform, text.value, { show, copy: (value) => void copy(value) }) : []
    const words = text.value.toLowerCase().trim()
    const doing = actions.value.filter((action) => action.title.toLowerCase().includes(words))
    return [...[...found, ...doing].slice(0, 40), ...answers.value].slice(0, 60)
})

/** Enter before the only answer has come runs it when it comes. */
let early = false
watch(text, () => (early = false))
watch(waiting, () => {
    if (!waiting.value && early && open.palette) {
        early = false
        run(entries.value[0] ?? null)
    }
})

watch(
    () => open.palette,
    () => (text.value = ''),
)

function run(entry: Entry | null): void {
    if (entry) {
        open.palette = false
        try {
            entry.run()
        } catch (error) {
            tellProblem(error)
        }
    }
}
</script>

<template>
    <Dialog :open="open.palette" class="relative z-40" aria-label="Find or do" @close="open.palette = false">
        <div class="fixed inset-0 bg-black/20" aria-hidden="true"></div>
        <div class="fixed inset-x-0 top-20 flex justify-center">
            <DialogPanel class="sheet w-[640px] overflow-hidden shadow-xl">
                <Combobox :model-value="null" @update:model-value="run">
                    <ComboboxInput
                        class="w-full border-b border-line bg-sheet px-4 py-3 text-ink outline-none"
                        placeholder="A block, a register, 0x1000_0004, or what you want to do"
                        aria-label="Find or do"
                        :display-value="() => text"
                        @change="text = ($event.target as HTMLInputElement).value"
                        @keydown.enter="early = waiting && entries.length === 0"
                    />
                    <ComboboxOptions static class="max-h-[420px] overflow-auto py-1">
                        <ComboboxOption
                            v-for="entry in entries"
                            :key="entry.key"
                            v-slot="{ active }"
                            :value="entry"
                            as="template"
                        >
                            <li
                                class="flex cursor-pointer items-baseline gap-3 px-4 py-1.5"
                                :class="active ? 'bg-accent-soft' : ''"
                            >
                                <span class="w-20 shrink-0 text-[12px] text-soft">{{ entry.kind }}</span>
                                <span class="flex-1 truncate">{{ entry.title }}</span>
                                <span class="font-mono text-[12px] text-soft">{{ entry.detail }}</span>
                            </li>
                        </ComboboxOption>
                        <li v-if="entries.length === 0" class="px-4 py-3 text-soft">
                            {{
                                waiting
                                    ? 'Looking…'
                                    : 'No matches. Try part of a name, or an address such as 0x1000_0004.'
                            }}
                        </li>
                    </ComboboxOptions>
                </Combobox>
            </DialogPanel>
        </div>
    </Dialog>
</template>
