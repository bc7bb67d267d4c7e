<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, client } from '../api/client'
import { open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import { useRevisionQuery } from '../frame/revisionQuery'
import { vScrolls } from '../frame/scrolls'
import AmountBars from './AmountBars.vue'
import MemoryTable from './MemoryTable.vue'
import MemoryTiles from './MemoryTiles.vue'

const { data: fit, error } = useRevisionQuery('fit', (id, at) =>
    answer(client.GET('/api/platforms/{id}/fit', { params: { path: { id }, query: { at } } })),
)
const context = usePlatform()
const { data: devices } = useQuery({
    queryKey: ['devices'],
    queryFn: () => answer(client.GET('/api/library/devices')),
})
const family = computed(
    () =>
        devices.value?.filter(
            (device) => device.family === fit.value?.family && device.name !== fit.value?.device,
        ) ?? [],
)
const percent = (used: number, of: number) => (of === 0 ? 0 : Math.round((used * 100) / of))
</script>

<template>
    <div v-scrolls class="h-full overflow-auto px-5 py-4">
        <p v-if="error && !fit" class="mx-auto mt-16 max-w-lg text-center text-error">{{ error.message }}</p>
        <template v-else-if="fit">
            <header class="flex items-baseline gap-3">
                <h1 class="text-lg font-semibold">
                    {{ fit.fits ? 'It fits' : 'It does not fit' }} {{ fit.device }}
                </h1>
                <span class="flex-1 text-soft">{{ fit.family }} family, {{ fit.packageName }}</span>
                <template v-if="family.length">
                    <span class="text-[13px] text-soft">other devices of the family</span>
                    <RouterLink
                        v-for="device in family"
                        :key="device.name"
                        class="button !py-0.5"
                        :title="`A copy of the board with ${device.name}`"
                        :to="{
                            path: `/boards/${context.platform.value?.board}/copy`,
                            query: { device: device.name, platform: context.id },
                        }"
                        >{{ device.name }}…</RouterLink
                    >
                </template>
                <button class="button !py-0.5" @click="open.board = true">Change the board…</button>
            </header>
            <ul v-if="fit.advice.length" class="mt-2 rounded border border-error bg-error-soft px-4 py-2">
                <li v-for="line in fit.advice" :key="line">{{ line }}</li>
            </ul>
            <div
                class="mt-3 grid grid-cols-[minmax(0,1.5fr)_minmax(380px,1fr)] max-[1100px]:grid-cols-1 gap-8"
            >
                <section aria-label="Memory" class="min-w-0">
                    <h2 class="heading">Memory</h2>
                    <p class="mt-2">
                        <strong>{{ fit.memory.blocksUsed }}</strong> of {{ fit.memory.blocks }} blocks ({{
                            percent(fit.memory.blocksUsed, fit.memory.blocks)
                        }}
                        %), for {{ fit.memory.bitsUsed.toLocaleString('en').replaceAll(',', ' ') }} of
                        {{ fit.memory.bits.toLocaleString('en').replaceAll(',', ' ') }} bits ({{
                            percent(fit.memory.bitsUsed, fit.memory.bits)
                        }}
                        %). The blocks run out first.
                    </p>
                    <p class="text-[13px] text-soft">
                        Each tile is one {{ fit.memory.sort
                        }}{{ fit.memory.halves ? ', which splits into two' : '' }}:
                        {{ fit.memory.shapes.join(', ') }}. The filled part is what is used of its bits.
                    </p>
                    <MemoryTiles :memory="fit.memory" />
                    <MemoryTable :memory="fit.memory" />
                </section>
                <div class="flex min-w-0 flex-col gap-6">
                    <div>
                        <AmountBars :amounts="fit.amounts" />
                        <p class="mt-1 text-[13px] text-soft">{{ fit.logic }}</p>
                    </div>
                    <section>
                        <h2 class="heading">What still fits</h2>
                        <p class="mt-1 text-[13px] text-soft">
                            The largest memory with byte enables that still fits.
                        </p>
                        <table class="mt-1 w-full text-[14px]">
                            <tbody>
                                <tr v-for="row in fit.memory.largest" :key="row.width">
                                    <td class="py-0.5 text-soft">{{ row.width }} bit wide</td>
                                    <td class="text-right font-mono text-[13px]">{{ row.words }} words</td>
                                    <td class="w-28 text-right font-mono text-[13px] font-semibold">
                                        {{ row.size }}
                                    </td>
                                </tr>
                            </tbody>
                        </table>
                    </section>
                </div>
            </div>
        </template>
        <p v-else class="mt-24 text-center text-soft">Working out the fit…</p>
    </div>
</template>
