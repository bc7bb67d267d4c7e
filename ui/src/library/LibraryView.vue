<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { answer, client } from '../api/client'
import HomeFrame from '../platforms/HomeFrame.vue'
import DocumentImport from './DocumentImport.vue'
import DatasheetPage from './DatasheetPage.vue'
import { byKind } from './kinds'

const route = useRoute()
const filter = ref('')
const { data: library, error } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const groups = computed(() => {
    const words = filter.value.toLowerCase().split(/\s+/).filter(Boolean)
    const found = (library.value?.types ?? []).filter((type) => {
        const text = `${type.title} ${type.summary} ${type.identity} ${type.kind}`.toLowerCase()
        return words.every((word) => text.includes(word))
    })
    return byKind(found.filter((type) => type.newest))
})

const shown = computed(() => (route.params.identity as string) || library.value?.types[0]?.identity)
</script>

<template>
    <HomeFrame wide>
        <div class="flex h-full">
            <aside class="flex w-[330px] shrink-0 flex-col border-r border-line bg-sheet p-4">
                <div class="flex items-center gap-2">
                    <h1 class="grow text-lg font-semibold">Library</h1>
                    <RouterLink class="button !py-0.5" to="/blocks/edit">New block type</RouterLink>
                    <DocumentImport
                        what="Block type"
                        to="/api/library/blocks"
                        shown-at="/library"
                        hint="A block type in one file, as Download writes it"
                    />
                </div>
                <input
                    v-model="filter"
                    class="input mt-3 !py-1"
                    placeholder="Find by name or purpose"
                    aria-label="Find a block type"
                />
                <p v-if="error" class="mt-3 text-error">{{ error.message }}</p>
                <nav class="mt-3 min-h-0 flex-1 overflow-auto" aria-label="Block types">
                    <template v-for="group in groups" :key="group.title">
                        <h2 class="heading mt-2">{{ group.title }}</h2>
                        <RouterLink
                            v-for="type in group.entries"
                            :key="type.identity"
                            :to="`/library/${type.identity}`"
                            class="mt-0.5 block rounded px-2 py-1 hover:bg-paper"
                            :class="shown === type.identity ? 'bg-accent-soft' : ''"
                            :aria-current="shown === type.identity ? 'page' : undefined"
                        >
                            <span class="block font-semibold">
                                {{ type.title }}
                                <span v-if="type.own" class="tag ml-1 font-normal">yours</span>
                            </span>
                            <span class="block text-[13px] text-soft">{{ type.summary }}</span>
                        </RouterLink>
                    </template>
                    <p v-if="library && groups.length === 0" class="mt-2 text-soft">No matches.</p>
                </nav>
            </aside>
            <DatasheetPage
                v-if="shown"
                :key="shown"
                :identity="shown"
                :own="library?.types.find((each) => each.identity === shown)?.own ?? false"
            />
        </div>
    </HomeFrame>
</template>
