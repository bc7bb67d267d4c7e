<script setup lang="ts">
import type { AddressesView } from '../api/client'

defineProps<{ loads: AddressesView['loads'] }>()
const colours = ['bg-accent', 'bg-ink', 'bg-warn', 'bg-soft']
</script>

<template>
    <section aria-label="What the buses carry">
        <h2 class="text-lg font-semibold">What the buses carry</h2>
        <p class="text-[13px] text-soft">
            Required bandwidth is set at <em>One initiator</em>; processors have what is left. Rates are the
            most that the protocol allows; what is taken also counts arbitration, adapters, bridges and the
            slowest writable memory on the way.
        </p>
        <table class="sheet mt-1 w-full border-separate border-spacing-0 text-[14px]">
            <thead>
                <tr class="table-head">
                    <th scope="col" class="px-3 py-1.5">Bus</th>
                    <th scope="col" class="px-2 py-1.5">Clock</th>
                    <th scope="col" class="px-2 py-1.5 text-right">Single transfers</th>
                    <th scope="col" class="px-2 py-1.5 text-right">Bursts</th>
                    <th scope="col" class="w-56 px-3 py-1.5">Taken</th>
                </tr>
            </thead>
            <tbody>
                <tr v-for="load in loads" :key="load.bus">
                    <td class="border-t border-line px-3 py-1 font-semibold">{{ load.bus }}</td>
                    <td class="border-t border-line px-2 py-1 font-mono text-[13px]">{{ load.clock }}</td>
                    <td class="border-t border-line px-2 py-1 text-right font-mono text-[13px]">
                        {{ load.singles }}
                    </td>
                    <td class="border-t border-line px-2 py-1 text-right font-mono text-[13px]">
                        {{ load.bursts }}
                    </td>
                    <td class="border-t border-line px-3 py-1">
                        <div
                            class="flex h-2.5 overflow-hidden rounded-sm bg-paper ring-1 ring-line"
                            aria-hidden="true"
                        >
                            <span
                                v-for="(share, at) in load.shares"
                                :key="share.initiator"
                                :class="load.busy > 100 ? 'bg-error' : colours[at % colours.length]"
                                :style="{ width: `${Math.min(100, share.percent)}%` }"
                            ></span>
                        </div>
                        <p class="text-[13px]" :class="load.busy > 100 ? 'font-semibold text-error' : ''">
                            <template v-if="load.shares.length">
                                {{ load.busy }} %{{ load.busy > 100 ? ': more than it can carry' : '' }}
                            </template>
                            <span v-else class="text-soft">not specified</span>
                        </p>
                        <p v-for="share in load.shares" :key="share.initiator" class="text-[12px] text-soft">
                            {{ share.label }} {{ share.traffic }}, {{ share.percent }} %
                        </p>
                    </td>
                </tr>
            </tbody>
        </table>
    </section>
</template>
