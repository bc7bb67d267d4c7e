<script setup lang="ts">
import type { ClocksView } from '../api/client'
import { domainColour } from '../compose/domainColours'
import { usePlatform } from '../frame/platform'

defineProps<{ tree: ClocksView['tree'] }>()
const context = usePlatform()
</script>

<template>
    <section aria-label="Clock tree">
        <h2 class="heading">Clock tree</h2>
        <p v-if="tree.length === 0" class="mt-2 text-soft">
            The board has no clock, and no block makes one. Choose another board, or add a block that makes a
            clock.
        </p>
        <table v-else class="mt-1 w-full border-separate border-spacing-0">
            <thead>
                <tr class="table-head">
                    <th scope="col" class="py-1">Clock</th>
                    <th scope="col" class="py-1"></th>
                    <th scope="col" class="py-1 text-right">Requested</th>
                    <th scope="col" class="py-1 text-right">Actual</th>
                    <th scope="col" class="w-24 py-1 text-right">Error</th>
                </tr>
            </thead>
            <tbody>
                <tr v-for="node in tree" :key="node.sort + node.name">
                    <td class="border-t border-line py-1.5">
                        <span
                            class="flex items-center"
                            :style="{ paddingLeft: `${String(node.depth * 22)}px` }"
                        >
                            <span v-if="node.depth" class="mr-1.5 text-soft" aria-hidden="true">└</span>
                            <span
                                v-if="node.sort === 'domain'"
                                class="mr-2 inline-block h-4 w-1.5 rounded-sm"
                                :style="{ background: domainColour(node.index) }"
                                aria-hidden="true"
                            ></span>
                            <button
                                v-if="node.block"
                                class="font-mono text-[13px] font-semibold hover:text-accent"
                                @click="context.selected.value = node.block"
                            >
                                {{ node.name }}
                            </button>
                            <button
                                v-else-if="node.sort === 'domain'"
                                class="font-mono text-[13px] font-semibold hover:text-accent"
                                :class="{ 'text-accent': context.selected.value === `domain ${node.name}` }"
                                :aria-pressed="context.selected.value === `domain ${node.name}`"
                                @click="context.selected.value = `domain ${node.name}`"
                            >
                                {{ node.name }}
                            </button>
                            <span v-else class="font-mono text-[13px] font-semibold">{{ node.name }}</span>
                        </span>
                    </td>
                    <td class="border-t border-line py-1.5 text-[13px] text-soft">
                        {{ node.sort === 'domain' ? 'domain, ' : '' }}{{ node.detail }}
                    </td>
                    <td class="border-t border-line py-1.5 text-right font-mono text-[13px] text-soft">
                        {{ node.wanted ?? '' }}
                    </td>
                    <td class="border-t border-line py-1.5 text-right font-mono text-[13px]">
                        {{ node.actual }}
                    </td>
                    <td class="border-t border-line py-1.5 text-right font-mono text-[13px] text-soft">
                        {{ node.error ?? '' }}
                    </td>
                </tr>
            </tbody>
        </table>
    </section>
</template>
