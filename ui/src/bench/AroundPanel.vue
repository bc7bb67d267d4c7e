<script setup lang="ts">
import type { StateView } from '../api/client'

type Around = StateView['around'][number]

defineProps<{
    around: Around[]
    setActing: (kind: string, on: boolean) => void
}>()

const shown = (reading: Around['readings'][number]): string =>
    `${reading.value.toFixed(reading.unit === '%' ? 0 : 2)} ${reading.unit}`
</script>

<template>
    <section
        v-for="each in around"
        :key="each.kind"
        class="sheet p-3"
        :aria-label="`Around the board: ${each.title}`"
    >
        <div class="flex items-baseline gap-3">
            <h2 class="grow text-[13px] font-semibold first-letter:uppercase">{{ each.title }}</h2>
            <label class="flex items-center gap-2">
                <input
                    type="checkbox"
                    class="accent-accent"
                    :checked="each.acts"
                    @change="setActing(each.kind, ($event.target as HTMLInputElement).checked)"
                />
                simulated
            </label>
        </div>
        <p class="text-[12px] text-soft">
            {{ each.summary }}.
            <template v-if="!each.acts">Its parts are moved by hand now.</template>
        </p>
        <dl v-if="each.acts" class="mt-2 grid grid-cols-[110px_1fr_70px] items-center gap-x-3 gap-y-0.5">
            <template v-for="reading in each.readings" :key="reading.name">
                <dt>{{ reading.name }}</dt>
                <dd aria-hidden="true" class="h-2 overflow-hidden rounded bg-line">
                    <div
                        class="h-full bg-accent"
                        :style="{ width: `${(reading.value / reading.most) * 100}%` }"
                    />
                </dd>
                <dd class="text-right font-mono text-[13px]">{{ shown(reading) }}</dd>
            </template>
        </dl>
    </section>
</template>
