<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, shallowRef, watch } from 'vue'
import { answer, client, type BoardChangeView, type Edit } from '../api/client'
import ConsequenceList from '../findings/ConsequenceList.vue'
import { open } from '../frame/actions'
import DialogFrame from '../frame/DialogFrame.vue'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'

const context = usePlatform()
const { data: library } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const others = computed(
    () => library.value?.boards.filter((board) => board.identity !== context.platform.value?.board) ?? [],
)
const chosen = ref<string>()
const change = shallowRef<BoardChangeView>()
const problem = ref('')

watch(
    () => open.board,
    () => (chosen.value = undefined),
)

watch([chosen, () => context.platform.value?.revision], async ([board]) => {
    change.value = undefined
    problem.value = ''
    if (!board) {
        return
    }
    try {
        const found = await answer(
            client.GET('/api/platforms/{id}/board-change', {
                params: { path: { id: context.id }, query: { board } },
            }),
        )
        if (board === chosen.value) {
            change.value = found
        }
    } catch (error) {
        problem.value = error instanceof Error ? error.message : String(error)
    }
})

const outcomes = [
    { outcome: 'lost', title: 'Lost', colour: 'text-error' },
    { outcome: 'changes', title: 'Changes', colour: 'text-warn' },
    { outcome: 'stays', title: 'Stays', colour: 'text-soft' },
]
const groups = computed(() =>
    outcomes
        .map((each) => ({
            ...each,
            lines: change.value?.lines.filter((line) => line.outcome === each.outcome) ?? [],
        }))
        .filter((each) => each.lines.length),
)
const breaks = computed(() => change.value?.breaks.filter((each) => each.grade !== 'note') ?? [])

async function apply(): Promise<void> {
    if (change.value && (await context.edit(change.value.edit as unknown as Edit, change.value.revision))) {
        open.board = false
    }
}
</script>

<template>
    <DialogFrame :open="open.board" title="Change the board" :width="720" @close="open.board = false">
        <p class="mt-1 text-soft">
            Now on {{ context.platform.value?.boardTitle }}. Choose another board to see what stays, what
            changes and what is lost; nothing happens before you apply it.
        </p>
        <div class="mt-3 grid grid-cols-2 gap-2" role="radiogroup" aria-label="Boards">
            <button
                v-for="board in others"
                :key="board.identity"
                role="radio"
                class="rounded border px-3 py-2 text-left hover:border-accent"
                :class="chosen === board.identity ? 'border-accent bg-accent-soft' : 'border-line'"
                :aria-checked="chosen === board.identity"
                @click="chosen = board.identity"
            >
                <span class="block font-semibold">{{ board.title }}</span>
                <span class="block text-[13px] text-soft">{{ board.device }}</span>
            </button>
        </div>
        <p v-if="others.length === 0" class="mt-2 text-soft">
            There is no other board.
            <RouterLink class="text-accent underline" to="/boards">Boards</RouterLink>
            lets you write one.
        </p>
        <p v-if="problem" class="mt-3 text-error" role="alert">{{ problem }}</p>
        <p v-else-if="chosen && !change" class="mt-3 text-soft">Working it out…</p>
        <div v-else-if="change" v-scrolls class="mt-3 min-h-0 flex-1 overflow-auto">
            <section v-for="group in groups" :key="group.outcome" class="mb-3" :aria-label="group.title">
                <h3 class="heading" :class="group.colour">{{ group.title }} ({{ group.lines.length }})</h3>
                <ul class="mt-1 text-[14px]">
                    <li
                        v-for="line in group.lines"
                        :key="line.subject + line.what"
                        class="grid grid-cols-[210px_1fr] gap-2 border-b border-line py-0.5"
                    >
                        <span class="truncate font-mono text-[13px] font-semibold" :title="line.subject">{{
                            line.subject
                        }}</span>
                        <span>{{ line.what }}</span>
                    </li>
                </ul>
            </section>
            <ConsequenceList :consequences="breaks" :title="`New findings on ${change.title}`" />
        </div>
        <template #buttons>
            <button class="button" @click="open.board = false">Close</button>
            <button class="button-main" :disabled="!change" @click="apply">
                {{ change ? `Change to ${change.title}` : 'Change' }}
            </button>
        </template>
    </DialogFrame>
</template>
