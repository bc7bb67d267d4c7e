<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, client } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useAuthor } from '../api/author'
import { localTime } from '../frame/time'

const author = useAuthor()

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
/** What the chosen revision is compared with: what it was made from, or another that is chosen. */
const against = ref<'before' | 'newest'>('before')
const range = computed(() =>
    against.value === 'newest'
        ? { from: chosen.value, to: newest.value }
        : { from: Math.max(1, chosen.value - 1), to: chosen.value },
)
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
    against.value === 'newest'
        ? `From revision ${chosen.value} to ${newest.value}, the newest`
        : chosen.value === 1
          ? 'Revision 1, the first'
          : `Revision ${chosen.value}, compared with ${chosen.value - 1}`,
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
            <ol class="mt-3 min-h-0 flex-1 overflow-auto">
                <li v-for="row in revisions" :key="row.number">
                    <button
                        class="grid w-full grid-cols-[34px_1fr] gap-x-2 rounded px-2 py-1 text-left hover:bg-paper"
                        :class="chosen === row.number ? 'bg-accent-soft' : ''"
                        :aria-current="chosen === row.number"
                        @click="picked = row.number"
                    >
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
        <section class="min-w-0 flex-1 overflow-auto px-6 py-4" aria-label="Changes">
            <div class="flex flex-wrap items-center gap-3">
                <h2 class="flex-1 text-lg font-semibold">{{ title }}</h2>
                <label class="flex items-center gap-2">
                    <span class="text-soft">compare with</span>
                    <select v-model="against" class="input !py-1">
                        <option value="before">the one before</option>
                        <option value="newest">the newest</option>
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
