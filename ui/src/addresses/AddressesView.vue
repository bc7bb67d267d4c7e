<script setup lang="ts">
import { computed, ref } from 'vue'
import { answer, client } from '../api/client'
import AddressRulers from './AddressRulers.vue'
import DecodeTable from './DecodeTable.vue'
import RangeTable from './RangeTable.vue'
import ReachGrid from './ReachGrid.vue'
import WhatIsAt from './WhatIsAt.vue'
import PlaceAgainDialog from './PlaceAgainDialog.vue'
import { usePlatform } from '../frame/platform'
import { useRevisionQuery } from '../frame/revisionQuery'

const context = usePlatform()
const platform = computed(() => context.platform.value)
const placing = ref(false)
const { data: addresses } = useRevisionQuery('addresses', (id, at) =>
    answer(client.GET('/api/platforms/{id}/addresses', { params: { path: { id }, query: { at } } })),
)
</script>

<template>
    <div v-if="platform" class="h-full overflow-auto">
        <div v-if="platform.buses.length === 0" class="sheet mx-auto mt-16 max-w-xl p-10 text-center">
            <p class="text-lg font-semibold">There are no addresses yet</p>
            <p class="mt-1 text-soft">Addresses come with a bus, and a bus comes with the first processor.</p>
            <RouterLink :to="`/p/${context.id}/compose`" class="button-main mt-4">Go to Compose</RouterLink>
        </div>
        <div v-else class="grid grid-cols-[minmax(400px,1fr)_minmax(560px,1.3fr)] gap-6 px-5 py-4">
            <div class="flex flex-col gap-6">
                <AddressRulers v-if="addresses" :rulers="addresses.rulers" />
                <ReachGrid :platform="platform" />
            </div>
            <div class="flex flex-col gap-6">
                <WhatIsAt />
                <section>
                    <div class="flex items-end justify-between">
                        <h2 class="text-lg font-semibold">Ranges</h2>
                        <button class="button" @click="placing = true">Place again…</button>
                    </div>
                    <RangeTable :platform="platform" />
                </section>
                <section>
                    <h2 class="text-lg font-semibold">Free space</h2>
                    <table class="mt-1 text-[14px]">
                        <tbody>
                            <tr v-for="gap in addresses?.free" :key="gap.bus + gap.base">
                                <td class="pr-6 text-soft">{{ gap.bus }}</td>
                                <td class="pr-2 font-mono text-[13px]">{{ gap.base }}</td>
                                <td class="pr-6 font-mono text-[13px]">– {{ gap.last }}</td>
                                <td class="text-right font-mono text-[13px]">{{ gap.size }}</td>
                            </tr>
                        </tbody>
                    </table>
                </section>
                <DecodeTable v-if="addresses?.decode.length" :rows="addresses.decode" />
            </div>
        </div>
        <PlaceAgainDialog :open="placing" @close="placing = false" />
    </div>
</template>
