<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { answer, client } from '../api/client'
import HomeFrame from '../platforms/HomeFrame.vue'
import BoardPage from './BoardPage.vue'

const route = useRoute()
const { data: library, error } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const shown = computed(() => (route.params.identity as string) || library.value?.boards[0]?.identity)
</script>

<template>
    <HomeFrame wide>
        <div class="flex h-full">
            <aside class="flex w-[330px] shrink-0 flex-col border-r border-line bg-sheet p-4">
                <h1 class="text-lg font-semibold">Boards</h1>
                <p v-if="error" class="mt-3 text-error">{{ error.message }}</p>
                <nav class="mt-3 min-h-0 flex-1 overflow-auto" aria-label="All boards">
                    <RouterLink
                        v-for="board in library?.boards"
                        :key="board.identity"
                        :to="`/boards/${board.identity}`"
                        class="mt-0.5 block rounded px-2 py-1 hover:bg-paper"
                        :class="shown === board.identity ? 'bg-accent-soft' : ''"
                        :aria-current="shown === board.identity ? 'page' : undefined"
                    >
                        <span class="block font-semibold">{{ board.title }}</span>
                        <span class="block text-[13px] text-soft">{{ board.summary }}</span>
                    </RouterLink>
                </nav>
            </aside>
            <BoardPage v-if="shown" :key="shown" :identity="shown" />
        </div>
    </HomeFrame>
</template>
