<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, client } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useAuthor } from '../api/author'
import { tellProblem } from '../frame/notices'
import { vScrolls } from '../frame/scrolls'
import { localTime } from '../frame/time'
import { foldedRevisions } from './foldedRevisions'
import { vTyped } from '../frame/typedText'

const author = useAuthor()
const queries = useQueryClient()

const context = usePlatform()
const newest = computed(() => context.platform.value?.revision ?? 0)
const { data: revisions, error } = useQuery({
    queryKey: ['revisions', context.id, newest],
    queryFn: () =>
        answer(client.GET('/api/platforms/{id}/revisions', { params: { path: { id: context.id } } })),
    placeholderData: (before) => before,
})
const picked = ref<number>()
const chosen = computed(() => picked.value ?? newest.value)
/** What the chosen revision is compared with: what it was made from, the newest, or any other one by its number. */
const against = ref<'before' | 'newest' | number>('before')
const other = computed(() =>
    against.value === 'newest'
        ? newest.value
        : against.value === 'before'
          ? Math.max(1, chosen.value - 1)
          : against.value,
)
/** The older one first, whichever is chosen. */
const range = computed(() => ({
    from: Math.min(chosen.value, other.value),
    to: Math.max(chosen.value, other.value),
}))
const lines = computed(() => foldedRevisions(revisions.value ?? []))
const unfolded = ref(new Set<number>())
const shown = computed(() =>
    lines.value.flatMap((line) => [
        { row: line.revision, more: line.folded.length, inner: false },
        ...(unfolded.value.has(line.revision.number)
            ? line.folded.map((row) => ({ row, more: 0, inner: true }))
            : []),
    ]),
)
function fold(number: number): void {
    if (!unfolded.value.delete(number)) {
        unfolded.value.add(number)
    }
}
const named = computed(() => (revisions.value ?? []).filter((row) => row.name))
const chosenRow = computed(() => revisions.value?.find((row) => row.number === chosen.value))

async function call(event: Event): Promise<void> {
    const name = (event.target as HTMLInputElement).value.trim()
    try {
        await answer(
            client.PUT('/api/platforms/{id}/revisions/{number}/name', {
                params: { path: { id: context.id, number: chosen.value } },
                body: { name },
            }),
        )
    } catch (problem) {
        tellProblem(problem)
    }
    await queries.invalidateQueries({ queryKey: ['revisions', context.id] })
}
const { data: changes } = useQuery({
    queryKey: ['changes', context.id, range],
    queryFn: () =>
        answer(
            client.GET('/api/platforms/{id}/changes', {
                params: { path: { id: context.id }, query: range.value },
            }),
        ),
    placeholderData: (before) => before,
})
const title = computed(() =>
    against.value === 'before'
        ? chosen.value === 1
            ? 'Revision 1, the first'
            : `Revision ${chosen.value}, compared with ${chosen.value - 1}`
        : `From revision ${range.value.from} to ${range.value.to}${range.value.to === newest.value ? ', the newest' : ''}`,
)

async function goBack(): Promise<void> {
    if (await context.restore(chosen.value)) {
        picked.value = undefined
    }
}
</script>

<template>
    <div class="flex h-full">
        <nav
            class="flex w-[400px] shrink-0 flex-col border-r border-line bg-sheet p-4"
            aria-label="Revisions"
        >
            <h1 class="text-lg font-semibold">History</h1>
            <p class="text-[13px] text-soft">
                Every change is kept. Going back is a change too, and can be undone.
            </p>
            <label class="mt-2 flex items-center gap-2 text-[13px]">
                <span class="whitespace-nowrap text-soft">Your name</span>
                <input
                    v-model="author"
                    class="input w-full !py-0.5"
                    maxlength="80"
                    placeholder="shown with your changes"
                />
            </label>
            <p v-if="error" class="mt-3 text-error">{{ error.message }}</p>
            <ol v-scrolls class="mt-3 min-h-0 flex-1 overflow-auto">
                <li v-for="{ row, more, inner } in shown" :key="row.number" class="relative">
                    <button
                        v-if="more"
                        class="absolute top-1 right-1 z-10 rounded border border-line bg-sheet px-1.5 text-[12px] text-soft hover:text-accent"
                        :aria-expanded="unfolded.has(row.number)"
                        :aria-label="`${more} more, undo and redo, before revision ${row.number}`"
                        @click="fold(row.number)"
                    >
                        {{ unfolded.has(row.number) ? '▾' : '▸' }} {{ more }} more
                    </button>
                    <button
                        class="grid w-full grid-cols-[34px_1fr] gap-x-2 rounded px-2 py-1 text-left hover:bg-paper"
                        :class="[
                            chosen === row.number ? 'bg-accent-soft' : '',
                            inner ? 'border-l-2 border-line' : '',
                            more ? 'pr-20' : '',
                        ]"
                        :aria-current="chosen === row.number"
                        @click="picked = row.number"
                    >
                        <template v-if="row.name">
                            <span></span>
                            <span class="truncate font-semibold text-accent">{{ row.name }}</span>
                        </template>
                        <span class="text-right font-mono text-[13px] text-soft">{{ row.number }}</span>
                        <span class="min-w-0 truncate">{{ row.title }}</span>
                        <span></span>
                        <span class="truncate text-[12px] text-soft"
                            >{{ localTime(row.madeAt) }}{{ row.by?.name ? `, ${row.by.name}` : '' }}</span
                        >
                    </button>
                </li>
            </ol>
        </nav>
        <section v-scrolls class="min-w-0 flex-1 overflow-auto px-6 py-4" aria-label="Changes">
            <div class="flex flex-wrap items-center gap-3">
                <h2 class="flex-1 text-lg font-semibold">{{ title }}</h2>
                <label class="flex items-center gap-2">
                    <span class="text-soft">compare with</span>
                    <select v-model="against" class="input max-w-56 !py-1">
                        <option value="before">the one before</option>
                        <option value="newest">the newest</option>
                        <optgroup v-if="named.length" label="with a name">
                            <option v-for="row in named" :key="row.number" :value="row.number">
                                {{ row.number }}, {{ row.name }}
                            </option>
                        </optgroup>
                        <optgroup label="all revisions">
                            <option v-for="row in revisions" :key="row.number" :value="row.number">
                                {{ row.number }}, {{ row.title }}
                            </option>
                        </optgroup>
                    </select>
                </label>
                <RouterLink
                    v-if="chosen !== newest"
                    class="button"
                    :to="{ path: `/p/${context.id}/compose`, query: { at: chosen } }"
                    >Look at it</RouterLink
                >
                <button class="button" :disabled="chosen === newest" @click="goBack">
                    Go back to revision {{ chosen }}
                </button>
            </div>
            <label class="mt-2 flex items-center gap-2 text-[13px]">
                <span class="text-soft">name of revision {{ chosen }}</span>
                <input
                    v-typed="chosenRow?.name ?? ''"
                    class="input w-72 !py-0.5"
                    maxlength="80"
                    placeholder="such as: handed over to software"
                    @change="call"
                />
            </label>
            <p v-if="changes && changes.length === 0" class="mt-6 text-soft">
                {{
                    range.from === range.to
                        ? 'There is nothing before it to compare with.'
                        : 'The two say the same.'
                }}
            </p>
            <table v-else-if="changes" class="sheet mt-4 w-full border-separate border-spacing-0">
                <thead>
                    <tr class="table-head">
                        <th scope="col" class="px-3 py-1.5">What</th>
                        <th scope="col" class="px-3 py-1.5">Where</th>
                        <th scope="col" class="px-3 py-1.5">Before</th>
                        <th scope="col" class="px-3 py-1.5">After</th>
                    </tr>
                </thead>
                <tbody>
                    <tr v-for="change in changes" :key="change.sort + change.subject">
                        <td class="border-t border-line px-3 py-1 text-soft">{{ change.sort }}</td>
                        <td class="border-t border-line px-3 py-1 font-mono text-[13px] font-semibold">
                            {{ change.subject }}
                        </td>
                        <td class="border-t border-line px-3 py-1 font-mono text-[13px]">
                            {{ change.before ?? '—' }}
                        </td>
                        <td class="border-t border-line px-3 py-1 font-mono text-[13px]">
                            {{ change.after ?? '—' }}
                        </td>
                    </tr>
                </tbody>
            </table>
        </section>
    </div>
</template>
