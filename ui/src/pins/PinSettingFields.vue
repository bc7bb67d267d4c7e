<script setup lang="ts">
import { computed } from 'vue'
import type { PinLineView, PinsView } from '../api/client'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ line: PinLineView; standards: PinsView['standards'] }>()
const context = usePlatform()

const drives = computed(() => props.standards.find((each) => each.name === props.line.standard)?.drives ?? [])
const isOutput = computed(() => props.line.direction !== 'in')
/** Only what fits the bank's supply, and what is set although it does not. */
const fitting = computed(() =>
    props.standards.filter(
        (each) => each.voltage === props.line.voltage || each.name === props.line.standard,
    ),
)

function set(key: string, event: Event): void {
    const value = (event.target as HTMLSelectElement).value
    const others = Object.entries(props.line.set ?? {}).filter(([name]) => name !== key)
    const chosen = value === '' ? [] : [[key, key === 'drive' ? Number(value) : value]]
    const setting: Record<string, unknown> = Object.fromEntries([...others, ...chosen])
    void context.edit({
        edit: 'set-pins',
        block: props.line.block,
        outward: props.line.outward,
        port: props.line.signal,
        setting,
    })
}
</script>

<template>
    <div class="flex flex-wrap items-end gap-3 px-3 py-2 text-[13px]">
        <span class="self-center font-semibold">All lines of {{ line.signal }}</span>
        <label class="grid">
            Standard
            <select class="input" :value="line.set?.standard ?? ''" @change="set('standard', $event)">
                <option value="">usual ({{ line.standard ?? 'none yet' }})</option>
                <option v-for="each in fitting" :key="each.name" :value="each.name">
                    {{ each.name }}, {{ each.voltage }}{{ each.differential ? ', differential' : '' }}
                </option>
            </select>
        </label>
        <label v-if="isOutput" class="grid">
            Drive
            <select class="input" :value="String(line.set?.drive ?? '')" @change="set('drive', $event)">
                <option value="">usual</option>
                <option v-for="drive in drives" :key="drive" :value="String(drive)">{{ drive }} mA</option>
            </select>
        </label>
        <label v-if="isOutput" class="grid">
            Edges
            <select class="input" :value="line.set?.slew ?? ''" @change="set('slew', $event)">
                <option value="">usual</option>
                <option>slow</option>
                <option>fast</option>
            </select>
        </label>
        <label class="grid">
            Pull
            <select class="input" :value="line.set?.pull ?? ''" @change="set('pull', $event)">
                <option value="">usual</option>
                <option>none</option>
                <option>up</option>
                <option>down</option>
                <option>keeper</option>
            </select>
        </label>
        <label class="grid">
            Termination
            <select class="input" :value="line.set?.termination ?? ''" @change="set('termination', $event)">
                <option value="">usual</option>
                <option>none</option>
                <option>series</option>
                <option>parallel</option>
                <option>differential</option>
            </select>
        </label>
    </div>
</template>
