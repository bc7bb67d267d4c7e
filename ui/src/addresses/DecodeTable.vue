<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AddressesView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useRowsInSight } from '../frame/rowsInSight'

const props = defineProps<{ rows: AddressesView['decode'] }>()
const context = usePlatform()
const full = computed(() => props.rows.reduce((sum, row) => sum + row.fullLookupTables, 0))
const partial = computed(() => props.rows.reduce((sum, row) => sum + row.partialLookupTables, 0))
const body = ref<HTMLElement | null>(null)
const ROW = 46
const part = useRowsInSight(
    body,
    () => props.rows,
    () => ROW,
)
</script>

<template>
    <section aria-label="Address decode">
        <h2 class="text-lg font-semibold">Address decode</h2>
        <p class="text-[13px] text-soft">
            Address bits that each target compares: mask = value. With only as many bits as tell the targets
            apart it takes about {{ partial }} lookup tables instead of {{ full }}, and targets appear again
            at every value of the bits that are not compared.
        </p>
        <details class="mt-1">
            <summary class="text-accent">All {{ rows.length }} targets</summary>
            <table class="mt-1 w-full text-[13px]">
                <thead>
                    <tr class="table-head">
                        <th scope="col" class="py-1">Target</th>
                        <th scope="col" class="py-1">In full</th>
                        <th scope="col" class="py-1">In part</th>
                        <th scope="col" class="py-1 text-right">Appears</th>
                    </tr>
                </thead>
                <tbody ref="body">
                    <tr v-if="part.above" :style="{ height: `${part.above}px` }"></tr>
                    <tr v-for="row in part.rows" :key="row.bus + row.target">
                        <td class="border-t border-line py-1 pr-2 align-top">
                            <button
                                class="font-mono font-semibold hover:text-accent"
                                @click="context.selected.value = row.block"
                            >
                                {{ row.target }}
                            </button>
                        </td>
                        <td class="border-t border-line py-1 pr-2 align-top font-mono">{{ row.full }}</td>
                        <td class="border-t border-line py-1 pr-2 align-top font-mono">{{ row.partial }}</td>
                        <td class="border-t border-line py-1 text-right align-top">{{ row.aliases }}</td>
                    </tr>
                    <tr v-if="part.below" :style="{ height: `${part.below}px` }"></tr>
                </tbody>
            </table>
        </details>
    </section>
</template>
