<script setup lang="ts">
import type { WishPlanView } from '../api/client'

type Candidate = WishPlanView['candidates'][number]

/** Settings of PLLs to choose from, with the clocks that they make. */
defineProps<{ candidates: Candidate[]; label: string }>()
const emit = defineEmits<{ use: [candidate: Candidate] }>()
</script>

<template>
    <ol class="mt-3 flex flex-col gap-2" :aria-label="label">
        <li v-for="(candidate, at) in candidates" :key="at" class="sheet px-3 py-2">
            <div class="flex items-center gap-3">
                <span class="flex-1 font-semibold">
                    {{ candidate.worst === 'exact' ? 'Exact' : `At most ${candidate.worst} off` }}
                    <span v-if="!candidate.within" class="tag !border-warn !text-warn"
                        >beyond the tolerance</span
                    >
                </span>
                <button class="button" @click="emit('use', candidate)">Use it</button>
            </div>
            <div v-for="(pll, number) in candidate.plls" :key="number" class="mt-1 text-[13px]">
                <p class="text-soft">
                    PLL{{ candidate.plls.length > 1 ? ` ${number + 1}` : '' }}: ÷ {{ pll.divider }} ×
                    {{ pll.multiplier }}, detector {{ pll.detector }}, oscillator {{ pll.vco }}
                </p>
                <p
                    v-for="output in pll.outputs"
                    :key="output.name"
                    class="grid grid-cols-[1fr_50px_130px_90px]"
                >
                    <span class="font-mono">{{ output.name }}</span>
                    <span class="text-right font-mono text-soft">÷ {{ output.divider }}</span>
                    <span class="text-right font-mono">{{ output.actual }}</span>
                    <span
                        class="text-right font-mono"
                        :class="output.within ? 'text-soft' : 'font-semibold text-warn'"
                        >{{ output.error }}</span
                    >
                </p>
            </div>
        </li>
    </ol>
</template>
