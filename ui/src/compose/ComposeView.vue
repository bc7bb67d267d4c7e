<script setup lang="ts">
import { PlusIcon } from '@heroicons/vue/20/solid'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { isDialogOpen, isTyping, open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import BlockPanel from './BlockPanel.vue'
import BusInspector from './BusInspector.vue'
import ContextMenu from './ContextMenu.vue'
import DomainInspector from '../clocks/DomainInspector.vue'
import DomainBand from './DomainBand.vue'
import FindField from '../frame/FindField.vue'
import { vScrolls } from '../frame/scrolls'
import { dragging } from './dragging'
import GroupDialog from './GroupDialog.vue'
import GroupInspector from './GroupInspector.vue'
import UnconnectedBlocks from './UnconnectedBlocks.vue'
import { naming } from './naming'
import { providePicture } from './picture'
import RecipeDialog from './RecipeDialog.vue'
import RemoveDialog from './RemoveDialog.vue'
import { provideSelection } from './selection'
import SeveralInspector from './SeveralInspector.vue'
import StreamLanes from './StreamLanes.vue'
import { SCALES, scale, setZoom, zoom } from './zoom'

const context = usePlatform()
const selection = provideSelection(context)
const { filter, matches, isFolded, toggleFold } = providePicture(context)
const platform = computed(() => context.platform.value)
const picture = ref<HTMLElement>()
const frame = ref<HTMLElement>()
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

const unconnected = computed(() => platform.value?.blocks.filter((block) => !block.attached) ?? [])
const selectedDomain = computed(
    () => platform.value?.domains.find((domain) => context.selected.value === `domain ${domain.name}`)?.name,
)
const selectedBus = computed(() =>
    platform.value?.buses.find((bus) => context.selected.value === `bus ${bus.name}`),
)
const selectedBlock = computed(() => {
    const name = context.selected.value?.split('.')[0]
    return name ? context.block(name) : undefined
})

const selectedGroup = computed(() =>
    platform.value?.groups.find((group) => context.selected.value === `group ${group.name}`),
)

/** Makes the picture so small that all of it can be seen, or gives it its own size again. */
async function fit(): Promise<void> {
    if (scale.value < 1 || zoom.value === 'far') {
        scale.value = 1
        setZoom('near')
        return
    }
    setZoom('far')
    for (const each of SCALES) {
        scale.value = each
        await nextTick()
        await new Promise(requestAnimationFrame)
        await nextTick()
        if (frame.value && frame.value.scrollHeight <= frame.value.clientHeight) {
            break
        }
    }
    frame.value?.scrollTo(0, 0)
}

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
    if (isTyping(event) || isDialogOpen()) {
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
    } else if (command && event.key === 'a') {
        event.preventDefault()
        void selection.all()
    } else if (command && event.key === 'd' && selectedBlock.value) {
        event.preventDefault()
        void selection.duplicate()
    } else if (event.key === 'F2' && selectedBlock.value) {
        event.preventDefault()
        open.forSelection = 'rename'
    } else if (!command && event.key === 'f') {
        event.preventDefault()
        void fit()
    } else if (!command && event.key === 'g' && selectedBlock.value) {
        event.preventDefault()
        naming.group = [...selection.names.value]
    } else if (!command && (event.key === '-' || event.key === '+')) {
        scale.value = 1
        setZoom(event.key === '-' ? 'far' : 'near')
    } else if (['ArrowRight', 'ArrowLeft'].includes(event.key)) {
        event.preventDefault()
        step(event.key === 'ArrowRight' ? 1 : -1)
    }
}

watch(
    () => open.forSelection,
    async (what) => {
        if (what === undefined || what === 'rename') {
            return
        }
        open.forSelection = undefined
        await nextTick()
        await selection[what]()
    },
    { immediate: true },
)

function onPaste(event: ClipboardEvent): void {
    const text = event.clipboardData?.getData('text/plain')
    const target = event.target
    const isField = target instanceof HTMLElement && ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName)
    if (text && !isField && !isDialogOpen()) {
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
        <section
            ref="frame"
            data-scrolls
            class="relative min-w-0 flex-1 overflow-auto"
            aria-label="Picture of the platform"
        >
            <div
                class="sticky top-0 left-0 z-10 flex flex-wrap items-center justify-between gap-2 bg-paper px-4 pt-3 pb-1"
            >
                <p class="flex flex-wrap items-center gap-x-2 text-[13px] text-soft">
                    {{ platform.boardTitle }} · {{ platform.blocks.length }} blocks
                    <template v-for="group in platform.groups" :key="group.name">
                        <span class="inline-flex">
                            <button
                                class="rounded-l border border-line bg-sheet px-1.5 hover:border-accent"
                                :aria-expanded="!isFolded(group.name)"
                                :aria-label="`${isFolded(group.name) ? 'Unfold' : 'Fold'} group ${group.name}`"
                                :title="isFolded(group.name) ? 'Unfold' : 'Fold'"
                                @click="toggleFold(group.name)"
                            >
                                {{ isFolded(group.name) ? '▸' : '▾' }}
                            </button>
                            <button
                                class="rounded-r border border-l-0 border-line bg-sheet px-1.5 text-ink hover:border-accent hover:text-accent"
                                :class="selectedGroup === group ? 'font-semibold text-accent' : ''"
                                :title="`Group of ${group.blocks.length} blocks`"
                                @click="context.selected.value = `group ${group.name}`"
                            >
                                {{ group.name }}
                            </button>
                        </span>
                    </template>
                </p>
                <div class="flex flex-wrap gap-2">
                    <FindField
                        v-model="filter"
                        label="Highlight matching blocks"
                        :found="matches?.size"
                        :all="platform.blocks.length"
                    />
                    <button class="button-main" title="Add a block (a)" @click="add">
                        <PlusIcon class="size-4" />Add a block
                    </button>
                    <button
                        class="button"
                        :aria-pressed="zoom === 'far'"
                        :title="
                            zoom === 'far'
                                ? 'Zoom back, with tags and sizes (f or +)'
                                : 'Zoom out until everything is visible (f)'
                        "
                        @click="fit"
                    >
                        {{ zoom === 'far' ? 'Zoom back' : 'Zoom to fit' }}
                    </button>
                    <button class="button" title="What could be connected (w)" @click="open.wiring = true">
                        Wiring plan
                    </button>
                </div>
            </div>
            <!-- It lies over the picture: nothing moves when a drag begins. -->
            <div v-if="dragging.block" class="pointer-events-none sticky top-12 z-20 h-0">
                <p
                    class="absolute inset-x-4 rounded border border-accent bg-accent-soft px-3 py-1 text-[13px]"
                    role="status"
                >
                    {{
                        dragging.offer
                            ? (dragging.offer.problem ?? `Dropping will ${dragging.offer.words}.`)
                            : 'Drop it into a gap of any rail.'
                    }}
                </p>
            </div>
            <div
                ref="picture"
                class="px-4 py-2"
                :style="scale < 1 ? { zoom: scale } : undefined"
                @click.self="context.selected.value = undefined"
            >
                <div v-if="platform.blocks.length === 0" class="sheet mt-10 p-10 text-center">
                    <p class="text-lg font-semibold">Nothing is on the board yet</p>
                    <p class="mt-1 text-soft">
                        Begin with a recipe of several blocks, or with a processor, then memory, then a
                        console. Clocks, buses and addresses are proposed as you go.
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
                    :width="width"
                />
                <StreamLanes :width="width" />
                <UnconnectedBlocks v-if="unconnected.length" :blocks="unconnected" />
            </div>
        </section>
        <RemoveDialog :selection="selection" />
        <ContextMenu />
        <GroupDialog />
        <RecipeDialog />
        <aside
            v-if="selectedDomain"
            class="flex w-[336px] shrink-0 max-[1000px]:w-[270px] flex-col overflow-y-auto border-l border-line bg-sheet p-4"
            aria-label="Inspector"
        >
            <DomainInspector :key="selectedDomain" :name="selectedDomain" />
        </aside>
        <BusInspector v-else-if="selectedBus" :key="selectedBus.name" :bus="selectedBus" />
        <SeveralInspector v-else-if="selection.names.value.length > 1" :selection="selection" />
        <GroupInspector v-else-if="selectedGroup" :key="selectedGroup.name" :group="selectedGroup" />
        <BlockPanel v-else-if="selectedBlock" :key="selectedBlock.name" :name="selectedBlock.name" />
        <aside
            v-else
            v-scrolls
            class="w-[336px] shrink-0 overflow-y-auto max-[1000px]:w-[270px] border-l border-line bg-sheet p-4 text-soft"
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
                <li><kbd class="mr-2">f</kbd>zoom to fit, zoom back</li>
                <li><kbd class="mr-2">Ctrl F, /</kbd>highlight what matches</li>
                <li><kbd class="mr-2">Ctrl click</kbd>select several</li>
                <li><kbd class="mr-2">Ctrl C, Ctrl V</kbd>copy, paste, also elsewhere</li>
                <li><kbd class="mr-2">Ctrl D</kbd>duplicate</li>
                <li><kbd class="mr-2">F2</kbd>rename</li>
                <li><kbd class="mr-2">g</kbd>group what is selected</li>
                <li><kbd class="mr-2">Del</kbd>remove what is selected</li>
                <li><kbd class="mr-2">Ctrl K</kbd>find or do anything</li>
                <li><kbd class="mr-2">Ctrl Z</kbd>undo</li>
            </ul>
            <h2 class="heading mt-6">Board parts</h2>
            <ul class="mt-1 text-[13px]">
                <li v-for="part in platform.parts" :key="part.part" class="flex justify-between gap-3 py-0.5">
                    <span>{{ part.title }}</span>
                    <button
                        v-if="part.block"
                        class="min-w-0 truncate text-ink hover:text-accent"
                        :title="part.block"
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
