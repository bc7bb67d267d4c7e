<script setup lang="ts">
import { computed } from 'vue'
import { usePlatform } from '../frame/platform'
import { openMenu } from './contextMenu'
import { domainColour } from './domainColours'
import { usePicture } from './picture'
import { useSelection } from './selection'
import { gradeBorder } from '../findings/gradeColours'

/** A block in a stream, or a folded group as `group name`. */
const props = defineProps<{ name: string }>()
const context = usePlatform()
const picture = usePicture()
const selection = useSelection()
const group = computed(() => (props.name.startsWith('group ') ? props.name.slice(6) : undefined))
const block = computed(() => context.block(props.name))
const members = computed(
    () => context.platform.value?.groups.find((each) => each.name === group.value)?.blocks.length ?? 0,
)
const domain = computed(() => block.value?.clocks.find((each) => each.sort === 'clock')?.domain)
const colour = computed(() =>
    domainColour(context.platform.value?.domains.findIndex((each) => each.name === domain.value) ?? -1),
)
const selected = computed(() =>
    group.value ? context.selected.value === props.name : selection.isSelected(props.name),
)
const finding = computed(() => context.finding(props.name))
const faded = computed(() => picture.matches.value?.has(props.name) === false)

function click(event: MouseEvent): void {
    if (group.value) {
        context.selected.value = props.name
    } else {
        selection.click(props.name, event)
    }
}
</script>

<template>
    <button
        class="flex flex-col justify-center overflow-hidden rounded-md border border-l-4 bg-sheet px-2 text-left leading-tight hover:border-accent"
        :class="[
            selected ? 'border-accent ring-1 ring-accent' : gradeBorder(finding?.grade),
            picture.lit.value?.has(name) ? '!bg-accent-soft' : '',
            group ? 'border-double shadow-[2px_2px_0_var(--line)]' : '',
            faded ? 'opacity-35' : '',
        ]"
        :style="{ borderLeftColor: colour }"
        :title="domain ? `${name}, in clock domain ${domain}` : name"
        data-card
        :data-lane="name"
        :aria-pressed="selected"
        @click="click"
        @contextmenu.prevent="openMenu($event, name)"
        @dblclick="group && picture.toggleFold(group)"
    >
        <span class="w-full truncate font-semibold">{{ group ?? block?.localName ?? name }}</span>
        <span class="w-full truncate text-[12px] text-soft">{{
            group ? `group of ${members}` : block?.title
        }}</span>
    </button>
</template>
