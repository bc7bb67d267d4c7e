<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client } from '../api/client'
import AddressRulers from './AddressRulers.vue'
import BusLoads from './BusLoads.vue'
import DecodeTable from './DecodeTable.vue'
import FreeSpace from './FreeSpace.vue'
import InitiatorSpace from './InitiatorSpace.vue'
import RangeTable from './RangeTable.vue'
import ReachGrid from './ReachGrid.vue'
import WhatIsAt from './WhatIsAt.vue'
import PlaceAgainDialog from './PlaceAgainDialog.vue'
import { usePlatform } from '../frame/platform'
import { useRevisionQuery } from '../frame/revisionQuery'

const context = usePlatform()
const platform = computed(() => context.platform.value)
const placing = ref(false)
const parts = { ranges: 'Ranges', seen: 'One initiator', buses: 'Buses' } as const
/** The part is in the address, so that a link or a reload shows the same. */
const route = useRoute()
const router = useRouter()
const part = computed(() => {
    const wanted = String(route.query.part)
    return Object.hasOwn(parts, wanted) ? (wanted as keyof typeof parts) : 'ranges'
})
function show(name: keyof typeof parts): void {
    const query = { ...route.query }
    delete query.part
    void router.replace({ query: name === 'ranges' ? query : { ...query, part: name } })
}
const { data: addresses } = useRevisionQuery('addresses', (id, at) =>
    answer(client.GET('/api/platforms/{id}/addresses', { params: { path: { id }, query: { at } } })),
)
</script>

<template>
    <div v-if="platform" class="h-full overflow-auto" data-scrolls>
        <div v-if="platform.buses.length === 0" class="sheet mx-auto mt-16 max-w-xl p-10 text-center">
            <p class="text-lg font-semibold">There are no addresses yet</p>
            <p class="mt-1 text-soft">Addresses come with a bus, and a bus comes with the first processor.</p>
            <RouterLink :to="`/p/${context.id}/compose`" class="button-main mt-4">Go to Compose</RouterLink>
        </div>
        <div
            v-else
            class="grid grid-cols-[minmax(380px,1fr)_minmax(600px,1.4fr)] max-[1100px]:grid-cols-1 gap-6 px-5 py-4"
        >
            <div class="flex min-w-0 flex-col gap-6">
                <AddressRulers v-if="addresses" :rulers="addresses.rulers" />
                <ReachGrid :platform="platform" />
            </div>
            <div class="flex min-w-0 flex-col gap-4">
                <WhatIsAt />
                <div class="flex items-center gap-1 border-b border-line">
                    <button
                        v-for="(title, name) in parts"
                        :key="name"
                        class="px-3 py-1 font-semibold"
                        :class="part === name ? 'border-b-2 border-accent' : 'text-soft hover:text-ink'"
                        :aria-pressed="part === name"
                        @click="show(name)"
                    >
                        {{ title }}
                    </button>
                    <span class="flex-1"></span>
                    <button v-if="part === 'ranges'" class="button mb-1" @click="placing = true">
                        Place automatically…
                    </button>
                </div>
                <template v-if="part === 'ranges'">
                    <RangeTable :platform="platform" />
                    <FreeSpace v-if="addresses" :free="addresses.free" :reserved="addresses.reserved" />
                </template>
                <InitiatorSpace
                    v-else-if="part === 'seen' && addresses"
                    :names="addresses.rulers.columns"
                    :initiators="addresses.rulers.initiators"
                />
                <template v-else-if="addresses">
                    <BusLoads :loads="addresses.loads" />
                    <DecodeTable v-if="addresses.decode.length" :rows="addresses.decode" />
                </template>
            </div>
        </div>
        <PlaceAgainDialog :open="placing" @close="placing = false" />
    </div>
</template>
