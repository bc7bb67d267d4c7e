<script setup lang="ts">
import type { FitView } from '../api/client'
import { usePlatform } from '../frame/platform'

defineProps<{ amounts: FitView['amounts'] }>()
const context = usePlatform()

type Amount = FitView['amounts'][number]

function part(count: number, amount: Amount): string {
    return `${String(Math.min(100, amount.available === 0 ? 100 : (count * 100) / amount.available))}%`
}

/** How much of the bar lies between the least and the most that the estimate may turn out to be. */
function band(amount: Amount): { left: string; width: string } {
    const off = amount.uncertaintyPercent / 100
    const least = Math.min(1, (amount.used * (1 - off)) / Math.max(1, amount.available))
    const most = Math.min(1, (amount.used * (1 + off)) / Math.max(1, amount.available))
    return { left: `${String(least * 100)}%`, width: `${String((most - least) * 100)}%` }
}
</script>

<template>
    <section aria-label="Logic, clocks and pins">
        <h2 class="heading">Everything else</h2>
        <details v-for="amount in amounts" :key="amount.name" class="mt-2">
            <summary class="list-none">
                <span class="flex items-baseline justify-between">
                    <span>
                        <span
                            class="mr-1 inline-block text-soft [details[open]_&]:rotate-90"
                            aria-hidden="true"
                            >▸</span
                        >{{ amount.name }}
                        <span v-if="!amount.fits" class="tag !border-error !text-error">too many</span>
                        <span v-else-if="!amount.surely" class="tag !border-warn !text-warn">close</span>
                    </span>
                    <span class="font-mono text-[13px]"
                        >{{ amount.uncertaintyPercent && amount.used ? 'about ' : '' }}{{ amount.used }} of
                        {{ amount.available }}</span
                    >
                </span>
                <span
                    class="relative mt-0.5 block h-2.5 overflow-hidden rounded-sm border border-line bg-sheet"
                >
                    <span
                        class="absolute inset-y-0 left-0"
                        :class="amount.fits ? 'bg-accent' : 'bg-error'"
                        :style="{ width: part(amount.used, amount) }"
                    ></span>
                    <span
                        v-if="amount.uncertaintyPercent && amount.used"
                        class="absolute inset-y-0 border-x border-ink bg-paper/40"
                        :style="band(amount)"
                        :title="`An estimate, good to ${amount.uncertaintyPercent} % either way`"
                    ></span>
                </span>
            </summary>
            <table class="mt-1 w-full text-[13px]">
                <tbody>
                    <tr v-for="share in amount.shares.slice(0, 12)" :key="share.who">
                        <td class="py-0.5 pl-3">
                            <button
                                v-if="share.block"
                                class="hover:text-accent"
                                @click="context.selected.value = share.block"
                            >
                                {{ share.who }}
                            </button>
                            <template v-else>{{ share.who }}</template>
                        </td>
                        <td class="text-right font-mono">{{ share.count }}</td>
                    </tr>
                    <tr v-if="amount.shares.length > 12">
                        <td class="py-0.5 pl-3 text-soft">{{ amount.shares.length - 12 }} more</td>
                        <td class="text-right font-mono text-soft">
                            {{ amount.shares.slice(12).reduce((sum, share) => sum + share.count, 0) }}
                        </td>
                    </tr>
                    <tr v-if="amount.shares.length === 0">
                        <td class="py-0.5 pl-3 text-soft">nothing needs any</td>
                    </tr>
                </tbody>
            </table>
        </details>
        <p class="mt-2 text-[13px] text-soft">
            Lookup tables and flip-flops are estimates from formulas of the blocks and the structure of buses
            and adapters, good to 25 % either way. Memory, PLLs, clocks and pins are counted.
        </p>
    </section>
</template>
