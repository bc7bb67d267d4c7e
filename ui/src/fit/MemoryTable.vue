<script setup lang="ts">
import type { FitView } from '../api/client'
import { usePlatform } from '../frame/platform'

defineProps<{ memory: FitView['memory'] }>()
const context = usePlatform()
</script>

<template>
    <p v-if="memory.uses.length === 0" class="mt-4 text-soft">No block has a memory inside.</p>
    <table v-else class="sheet mt-4 w-full border-separate border-spacing-0">
        <thead>
            <tr class="table-head">
                <th scope="col" class="px-3 py-1.5">Memory</th>
                <th scope="col" class="px-2 py-1.5 text-right">Words × bits</th>
                <th scope="col" class="px-2 py-1.5 text-right">Made of</th>
                <th scope="col" class="px-3 py-1.5 text-right">Twice as deep</th>
            </tr>
        </thead>
        <tbody>
            <tr
                v-for="use in memory.uses"
                :key="use.memory"
                :class="context.selected.value === use.block ? 'bg-accent-soft' : ''"
            >
                <td class="border-t border-line px-3 py-1">
                    <button
                        class="font-mono text-[13px] font-semibold hover:text-accent"
                        @click="context.selected.value = use.block"
                    >
                        {{ use.memory }}
                    </button>
                </td>
                <td
                    class="border-t border-line px-2 py-1 text-right font-mono text-[13px]"
                    :title="`${use.bits} bits`"
                >
                    {{ use.depth }} × {{ use.width }}
                </td>
                <td class="border-t border-line px-2 py-1 text-right text-[13px]">
                    {{ use.amount === '—' ? use.place : use.amount }}
                </td>
                <td class="border-t border-line px-3 py-1 text-right text-[13px] text-soft">
                    {{ use.doubling }}
                </td>
            </tr>
        </tbody>
    </table>
</template>
