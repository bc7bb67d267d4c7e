<script setup lang="ts">
import { PlusIcon } from '@heroicons/vue/20/solid'
import { computed, onBeforeUnmount, onMounted, ref } from 'vue'
import { isTyping, open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import BlockInspector from './BlockInspector.vue'
import BusInspector from './BusInspector.vue'
import DomainBand from './DomainBand.vue'
import LooseBlocks from './LooseBlocks.vue'
import RemoveDialog from './RemoveDialog.vue'
import { providePicture } from './picture'
import { provideSelection } from './selection'
import SeveralInspector from './SeveralInspector.vue'
import { setZoom, zoom } from './zoom'

const context = usePlatform()
const selection = provideSelection(context)
providePicture(context)
const platform = computed(() => context.platform.value)
const picture = ref<HTMLElement>()
const width = ref(900)

let observer: ResizeObserver | undefined
onMounted(() => {
    observer = new ResizeObserver((entries) => {
        width.value = entries[0]?.contentRect.width ?? width.value
    })
    if (picture.value) {
        observer.observe(picture.value)
    }
    window.addEventListener('keydown', onKey)
})
onBeforeUnmount(() => {
    observer?.disconnect()
    window.removeEventListener('keydown', onKey)
})

/** Buses by clock domain; those without one come last. */
const bands = computed(() => {
    const current = platform.value
    if (!current) {
        return []
    }
    const bands = current.domains.map((domain, index) => ({
        domain,
        index,
        buses: current.buses
            .filter((bus) => bus.domain === domain.name)
            .sort((one, other) => one.depth - other.depth),
    }))
    const rest = current.buses.filter((bus) => !current.domains.some((domain) => domain.name === bus.domain))
    return rest.length
        ? [...bands, { domain: { name: 'no clock', frequency: '', clock: '' }, index: -1, buses: rest }]
        : bands
})

const loose = computed(() => platform.value?.blocks.filter((block) => !block.attached) ?? [])
const selectedBus = computed(() =>
    platform.value?.buses.find((bus) => context.selected.value === `bus ${bus.name}`),
)
const selectedBlock = computed(() => {
    const name = context.selected.value?.split('.')[0]
    return platform.value?.blocks.find((block) => block.name === name)
})

/** Selects the card before or behind the one that is focused or selected. */
function step(by: 1 | -1): void {
    const cards = [...(picture.value?.querySelectorAll<HTMLElement>('[data-card]') ?? [])]
    const focused = cards.findIndex((card) => card === document.activeElement)
    const from = focused >= 0 ? focused : cards.findIndex((card) => card.ariaPressed === 'true')
    const start = from < 0 && by < 0 ? 0 : from
    const next = cards[(start + by + cards.length) % cards.length]
    next?.focus()
    next?.click()
}

function onKey(event: KeyboardEvent): void {
    if (isTyping(event) || open.palette || open.add || open.wiring) {
        return
    }
    const command = event.ctrlKey || event.metaKey
    const hasText = window.getSelection()?.isCollapsed === false
    if ((event.key === 'Delete' || event.key === 'Backspace') && selectedBlock.value) {
        event.preventDefault()
        void selection.remove()
    } else if (command && event.key === 'c' && selectedBlock.value && !hasText) {
        event.preventDefault()
        void selection.copy()
    } else if (command && event.key === 'd' && selectedBlock.value) {
        event.preventDefault()
        void selection.duplicate()
    } else if (!command && (event.key === '-' || event.key === '+')) {
        setZoom(event.key === '-' ? 'far' : 'near')
    } else if (['ArrowRight', 'ArrowLeft'].includes(event.key)) {
        event.preventDefault()
        step(event.key === 'ArrowRight' ? 1 : -1)
    }
}

function onPaste(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text/plain')
    const target = event.target
    const isField = target instanceof HTMLElement && ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
    if (text && !isField && !open.palette && !open.add && !open.wiring) {
        event.preventDefault()
        selection.paste(text)
    }
}
onMounted(() => window.addEventListener('paste', onPaste))
onBeforeUnmount(() => window.removeEventListener('paste', onPaste))

function add(): void {
    open.addAt = undefined
    open.add = true
}
</script>

<template>
    <div v-if="platform" class="flex h-full">
        <section class="relative min-w-0 flex-1 overflow-auto" aria-label="Picture of the platform">
            <div class="flex items-center justify-between gap-2 px-4 pt-3">
                <p class="text-[13px] text-soft">
                    {{ platform.boardTitle }} · {{ platform.blocks.length }} blocks
                </p>
                <div class="flex gap-2">
                    <button class="button-main" title="Add a block (a)" @click="add">
                        <PlusIcon class="size-4" />Add a block
                    </button>
                    <button
                        class="button"
                        :aria-pressed="zoom === 'far'"
                        :title="
                            zoom === 'far'
                                ? 'Nearer, with tags and sizes (+)'
                                : 'Farther, to see more at once (-)'
                        "
                        @click="setZoom(zoom === 'far' ? 'near' : 'far')"
                    >
                        {{ zoom === 'far' ? 'Nearer' : 'Farther' }}
                    </button>
                    <button class="button" title="What could be connected (w)" @click="open.wiring = true">
                        Wiring plan
                    </button>
                </div>
            </div>
            <div ref="picture" class="px-4 py-3" @click.self="context.selected.value = undefined">
                <div v-if="platform.blocks.length === 0" class="sheet mt-10 p-10 text-center">
                    <p class="text-lg font-semibold">Nothing is on the board yet</p>
                    <p class="mt-1 text-soft">
                        Begin with a processor, then memory, then a console. Clocks, buses and addresses are
                        proposed as you go.
                    </p>
                    <button class="button-main mt-4" @click="add">
                        <PlusIcon class="size-4" />Add a block
                    </button>
                    <p class="mt-2 text-[13px] text-soft">or press <kbd>a</kbd></p>
                </div>
                <DomainBand
                    v-for="band in bands"
                    :key="band.domain.name"
                    :name="band.domain.name"
                    :frequency="band.domain.frequency"
                    :index="band.index"
                    :buses="band.buses"
                    :width="width - 32"
                />
                <LooseBlocks v-if="loose.length" :blocks="loose" />
            </div>
        </section>
        <RemoveDialog :selection="selection" />
        <BusInspector v-if="selectedBus" :key="selectedBus.name" :bus="selectedBus" />
        <SeveralInspector v-else-if="selection.names.value.length > 1" :selection="selection" />
        <BlockInspector v-else-if="selectedBlock" :key="selectedBlock.name" :block="selectedBlock" />
        <aside
            v-else
            class="w-[336px] shrink-0 border-l border-line bg-sheet p-4 text-soft"
            aria-label="Inspector"
        >
            <p v-if="platform.blocks.length">
                Select a block to see its parameters, its place and its registers. Select an initiator above a
                rail to see what it reaches.
            </p>
            <ul class="mt-4 flex flex-col gap-1 text-[13px]">
                <li><kbd class="mr-2">a</kbd>add a block</li>
                <li><kbd class="mr-2">w</kbd>wiring plan</li>
                <li><kbd class="mr-2">← →</kbd>next block</li>
                <li><kbd class="mr-2">- +</kbd>farther, nearer</li>
                <li><kbd class="mr-2">Ctrl click</kbd>select several</li>
                <li><kbd class="mr-2">Ctrl C, Ctrl V</kbd>copy, paste, also elsewhere</li>
                <li><kbd class="mr-2">Ctrl D</kbd>duplicate</li>
                <li><kbd class="mr-2">Del</kbd>remove what is selected</li>
                <li><kbd class="mr-2">Ctrl K</kbd>find or do anything</li>
                <li><kbd class="mr-2">Ctrl Z</kbd>undo</li>
            </ul>
            <h2 class="heading mt-6">Board parts</h2>
            <ul class="mt-1 text-[13px]">
                <li v-for="part in platform.parts" :key="part.part" class="flex justify-between py-0.5">
                    <span>{{ part.title }}</span>
                    <button
                        v-if="part.block"
                        class="text-ink hover:text-accent"
                        @click="context.selected.value = part.block"
                    >
                        {{ part.block }}
                    </button>
                    <span v-else>{{ part.drivers.length ? 'free' : 'no block drives it yet' }}</span>
                </li>
            </ul>
        </aside>
    </div>
</template>
