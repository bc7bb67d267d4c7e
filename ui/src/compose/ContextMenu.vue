<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import { usePlatform } from '../frame/platform'
import { closeMenu, menu } from './contextMenu'
import { naming } from './naming'
import { usePicture } from './picture'
import { useSelection } from './selection'

interface Item {
    title: string
    shortcut?: string
    run: () => void
}

const context = usePlatform()
const picture = usePicture()
const selection = useSelection()
const list = ref<HTMLElement>()
let before: HTMLElement | undefined

const target = computed(() => {
    for (const bus of context.platform.value?.buses ?? []) {
        const slot = bus.slots.find((each) => each.target?.block === menu.about)
        if (slot?.target) {
            return { bus: bus.name, ...slot.target }
        }
    }
    return undefined
})

const items = computed<Item[]>(() => {
    const about = menu.about
    if (about === undefined) {
        return []
    }
    if (about.startsWith('group ')) {
        const group = about.slice(6)
        return [
            {
                title: picture.isFolded(group) ? 'Unfold' : 'Fold',
                run: () => {
                    picture.toggleFold(group)
                },
            },
            { title: 'Duplicate…', run: () => void selection.duplicateGroup(group) },
            { title: 'Dissolve', run: () => void context.edit({ edit: 'ungroup', name: group }) },
        ]
    }
    const items: Item[] = [
        { title: 'Copy', shortcut: 'Ctrl C', run: () => void selection.copy() },
        { title: 'Duplicate…', shortcut: 'Ctrl D', run: () => void selection.duplicate() },
        { title: 'Group…', shortcut: 'g', run: () => (naming.group = [...selection.names.value]) },
    ]
    const at = target.value
    if (at?.base) {
        items.push({
            title: at.held ? 'Unlock its address' : 'Lock its address',
            run: () =>
                void context.edit({
                    edit: 'attach',
                    block: at.block,
                    busInterface: at.busInterface,
                    bus: at.bus,
                    base: at.base,
                    held: !at.held,
                }),
        })
    }
    items.push({ title: 'Remove', shortcut: 'Del', run: () => void selection.remove() })
    return items
})

watch(
    () => menu.about,
    async (about, was) => {
        if (about !== undefined) {
            before = document.activeElement instanceof HTMLElement ? document.activeElement : undefined
            if (!about.startsWith('group ') && !selection.isSelected(about)) {
                context.selected.value = about
            }
            await nextTick()
            list.value?.querySelector('button')?.focus()
        } else if (was !== undefined) {
            before?.focus()
        }
    },
)

function run(item: Item): void {
    closeMenu()
    item.run()
}

function step(event: KeyboardEvent, by: 1 | -1): void {
    const buttons = [...(list.value?.querySelectorAll('button') ?? [])]
    const at = buttons.findIndex((button) => button === event.target)
    buttons[(at + by + buttons.length) % buttons.length]?.focus()
}
</script>

<template>
    <Teleport to="body">
        <div
            v-if="items.length"
            class="fixed inset-0 z-30"
            @click="closeMenu"
            @contextmenu.prevent="closeMenu"
        >
            <ul
                ref="list"
                role="menu"
                :aria-label="`Actions for ${menu.about}`"
                class="sheet absolute min-w-52 py-1 shadow-lg"
                :style="{ left: `min(${menu.x}px, 100vw - 220px)`, top: `min(${menu.y}px, 100vh - 190px)` }"
                @click.stop
                @keydown.escape.stop="closeMenu"
                @keydown.down.prevent.stop="step($event, 1)"
                @keydown.up.prevent.stop="step($event, -1)"
            >
                <li v-for="item in items" :key="item.title" role="none">
                    <button
                        role="menuitem"
                        class="flex w-full justify-between gap-6 px-3 py-1 text-left hover:bg-accent-soft focus:bg-accent-soft"
                        @click="run(item)"
                    >
                        {{ item.title }}<kbd class="text-[12px] text-soft">{{ item.shortcut }}</kbd>
                    </button>
                </li>
            </ul>
        </div>
    </Teleport>
</template>
