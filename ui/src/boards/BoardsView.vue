<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client } from '../api/client'
import DialogFrame from '../frame/DialogFrame.vue'
import { tellProblem } from '../frame/notices'
import DocumentImport from '../library/DocumentImport.vue'
import HomeFrame from '../platforms/HomeFrame.vue'
import BoardPage from './BoardPage.vue'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const { data: library, error } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const shown = computed(() => (route.params.identity as string) || library.value?.boards[0]?.identity)
const shownBoard = computed(() => library.value?.boards.find((each) => each.identity === shown.value))
/** The board that is about to go, and the platforms that are built on it. */
const leaving = ref<{ identity: string; title: string; platforms: string[] }>()

async function ask(): Promise<void> {
    const board = shownBoard.value
    if (!board) {
        return
    }
    try {
        const platforms = await answer(
            client.GET('/api/library/boards/{identity}/platforms', {
                params: { path: { identity: board.identity } },
            }),
        )
        leaving.value = { identity: board.identity, title: board.title, platforms }
    } catch (problem) {
        tellProblem(problem)
    }
}

async function remove(): Promise<void> {
    const identity = leaving.value?.identity
    leaving.value = undefined
    if (!identity) {
        return
    }
    try {
        await answer(client.DELETE('/api/library/boards/{identity}', { params: { path: { identity } } }))
        await queries.invalidateQueries({ queryKey: ['library'] })
        await router.push('/boards')
    } catch (problem) {
        tellProblem(problem)
    }
}
</script>

<template>
    <HomeFrame wide>
        <div class="flex h-full">
            <aside class="flex w-[330px] shrink-0 flex-col border-r border-line bg-sheet p-4">
                <div class="flex items-center justify-between">
                    <h1 class="text-lg font-semibold">Boards</h1>
                    <DocumentImport
                        what="Board"
                        to="/api/library/boards"
                        shown-at="/boards"
                        hint="A board document, as Export writes it"
                    />
                </div>
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
                        <span class="block font-semibold">
                            {{ board.title }}
                            <span v-if="board.own" class="tag ml-1 font-normal">yours</span>
                        </span>
                        <span class="block text-[13px] text-soft">{{ board.summary }}</span>
                    </RouterLink>
                </nav>
                <p class="mt-2 text-[13px] text-soft">
                    Copy the board that is nearest to yours and change it, or import one that was given to
                    you.
                </p>
            </aside>
            <BoardPage
                v-if="shown"
                :key="shown"
                :identity="shown"
                :own="shownBoard?.own ?? false"
                @remove="ask"
            />
        </div>
        <DialogFrame
            :open="leaving !== undefined"
            :title="`Remove ${leaving?.title ?? ''}?`"
            :width="520"
            @close="leaving = undefined"
        >
            <p v-if="leaving?.platforms.length" class="mt-2">
                {{ leaving.platforms.join(', ') }}
                {{ leaving.platforms.length === 1 ? 'is' : 'are' }} built on it. Nothing in
                {{ leaving.platforms.length === 1 ? 'it' : 'them' }} is lost, but clocks, resets and board
                parts are missing until the board is back. Export it first if you may need it again.
            </p>
            <p v-else class="mt-2">No platform is built on it.</p>
            <template #buttons>
                <button class="button" @click="leaving = undefined">Keep it</button>
                <button class="button-main" @click="remove">Remove it</button>
            </template>
        </DialogFrame>
    </HomeFrame>
</template>
