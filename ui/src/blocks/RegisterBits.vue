<script setup lang="ts">
import { computed } from 'vue'

interface FieldBits {
    name: string
    low: number
    bits: number
}

const props = defineProps<{
    name: string
    offset: number
    width: number
    count: number
    fields: FieldBits[]
}>()

/** Runs of bits from the highest down: a field, or nothing. */
const runs = computed(() => {
    const found: { name: string; high: number; low: number }[] = []
    let high = props.width - 1
    for (const field of [...props.fields].sort((one, other) => other.low - one.low)) {
        const top = field.low + field.bits - 1
        if (top < high) {
            found.push({ name: '', high, low: top + 1 })
        }
        found.push({ name: field.name, high: top, low: field.low })
        high = field.low - 1
    }
    if (high >= 0) {
        found.push({ name: '', high, low: 0 })
    }
    return found
})
/** A narrow run has a number of its own width at least, so that its name can be read. */
const grow = (run: { high: number; low: number; name: string }): number =>
    run.name ? Math.max(run.high - run.low + 1, 3) : Math.min(run.high - run.low + 1, 6)
</script>

<template>
    <figure class="mt-2" :aria-label="`Bits of ${name}`">
        <figcaption class="text-[12px]">
            <span class="font-mono font-semibold">{{ name }}</span>
            <span class="ml-2 font-mono text-soft">
                0x{{ offset.toString(16).toUpperCase().padStart(2, '0') }}
                <template v-if="count > 1">, {{ count }} rows</template>
            </span>
        </figcaption>
        <div class="mt-0.5 flex">
            <div
                v-for="run in runs"
                :key="run.low"
                class="min-w-0 border-y border-l border-line px-1 text-[11px] last:border-r"
                :class="run.name ? 'bg-accent-soft' : 'bg-sunken text-soft'"
                :style="{ flexGrow: grow(run), flexBasis: 0 }"
                :title="`${run.name || 'no field'} ${run.high}:${run.low}`"
            >
                <div class="truncate font-mono">{{ run.name || '–' }}</div>
                <div class="font-mono text-soft">
                    {{ run.high === run.low ? run.low : `${run.high}:${run.low}` }}
                </div>
            </div>
        </div>
    </figure>
</template>
