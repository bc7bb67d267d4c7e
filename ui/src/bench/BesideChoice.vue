<script setup lang="ts">
/** Programs for further processors, which run at the same time; none is the usual choice. */
const props = defineProps<{
    /** Processors other than the first. */
    processors: string[]
    programs: { id: string; name: string }[]
    chosen: Record<string, string>
}>()
const emit = defineEmits<{ choose: [chosen: Record<string, string>] }>()

function choose(processor: string, program: string): void {
    const rest = Object.entries(props.chosen).filter(([name]) => name !== processor)
    emit('choose', Object.fromEntries(program ? [...rest, [processor, program]] : rest))
}
</script>

<template>
    <label v-for="each in processors" :key="each" class="flex items-center gap-2">
        <span class="text-soft"
            >Also on <span class="font-mono text-ink">{{ each }}</span></span
        >
        <select
            class="input !py-1"
            :value="chosen[each] ?? ''"
            :aria-label="`Program on ${each}`"
            @change="choose(each, ($event.target as HTMLSelectElement).value)"
        >
            <option value="">no program</option>
            <option v-for="program in programs" :key="program.id" :value="program.id">
                {{ program.name }}
            </option>
        </select>
    </label>
</template>
