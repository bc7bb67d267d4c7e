<script setup lang="ts">
import type { AddressesView } from '../api/client'
import { usePlatform } from '../frame/platform'

defineProps<{ rulers: AddressesView['rulers'] }>()
const context = usePlatform()
const blockOf = (label: string): string => label.split('.')[0] ?? label
const isEmpty = (cells: string[][]): boolean => cells.every((cell) => cell.length === 0)
</script>

<template>
    <section aria-label="Address spaces side by side">
        <h2 class="text-lg font-semibold">Who sees what</h2>
        <p v-if="rulers.columns.length === 0" class="mt-2 text-soft">
            No initiator is on a bus, so nobody sees an address.
        </p>
        <table v-else class="mt-2 w-full table-fixed border-separate border-spacing-x-2 border-spacing-y-0">
            <colgroup>
                <col class="w-[104px]" />
                <col v-for="column in rulers.columns" :key="column" />
            </colgroup>
            <thead>
                <tr>
                    <td></td>
                    <th
                        v-for="column in rulers.columns"
                        :key="column"
                        scope="col"
                        class="pb-1 text-left text-[13px] font-semibold"
                    >
                        {{ column }}
                    </th>
                </tr>
            </thead>
            <tbody>
                <tr v-for="row in rulers.rows" :key="row.base" :class="isEmpty(row.cells) ? 'h-9' : 'h-12'">
                    <th scope="row" class="relative align-top font-mono text-[12px] font-normal">
                        <span class="absolute -top-0 right-0 left-0 border-t border-line pt-px text-left">{{
                            row.base
                        }}</span>
                    </th>
                    <td
                        v-for="(cell, at) in row.cells"
                        :key="at"
                        class="border-x-2 border-ink p-0 align-top"
                        :class="
                            cell.length > 1
                                ? 'bg-error-soft'
                                : cell.length === 1
                                  ? 'border-t border-t-line bg-sheet'
                                  : 'border-t border-t-line'
                        "
                    >
                        <div v-if="cell.length === 0" class="px-2 pt-2 text-[12px] text-soft">
                            <span v-if="isEmpty(row.cells)">{{ row.size }} free</span>
                        </div>
                        <div v-else class="px-2 pt-0.5">
                            <button
                                v-for="label in cell"
                                :key="label"
                                class="mr-2 font-semibold hover:text-accent"
                                :class="[
                                    cell.length > 1 ? 'text-error' : '',
                                    context.selected.value === blockOf(label) ? 'text-accent underline' : '',
                                ]"
                                @click="context.selected.value = blockOf(label)"
                            >
                                {{ label }}
                            </button>
                            <span class="block font-mono text-[12px] text-soft">
                                {{ cell.length > 1 ? 'conflict · ' : '' }}{{ row.size }}
                            </span>
                        </div>
                    </td>
                </tr>
            </tbody>
            <tfoot>
                <tr>
                    <th
                        scope="row"
                        class="border-t border-line pt-px text-left font-mono text-[12px] font-normal"
                    >
                        {{ rulers.rows.at(-1)?.last }}
                    </th>
                    <td v-for="column in rulers.columns" :key="column" class="border-t-2 border-ink"></td>
                </tr>
            </tfoot>
        </table>
    </section>
</template>
