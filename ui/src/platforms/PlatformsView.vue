<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client, upload, type PlatformSummary } from '../api/client'
import { tell, tellProblem } from '../frame/notices'
import SortHead from '../frame/SortHead.vue'
import { useTableView } from '../frame/tableView'
import { localTime } from '../frame/time'
import { guide, setGuide } from '../frame/guide'
import HomeFrame from './HomeFrame.vue'

const router = useRouter()
const queries = useQueryClient()
/** An error counts more than all warnings. */
const MANY = 1e6
const { data: platforms, error } = useQuery({
    queryKey: ['platforms'],
    queryFn: () => answer(client.GET('/api/platforms')),
    // The server has not counted what every platform says yet; a moment later it has.
    refetchInterval: (query) => (query.state.data?.some((each) => each.errors == null) ? 1000 : false),
})
const { data: removed } = useQuery({
    queryKey: ['removed-platforms'],
    queryFn: () => answer(client.GET('/api/removed-platforms')),
})
/** The server gives the last changed first. */
const { find, order, shown } = useTableView<PlatformSummary>(
    () => platforms.value ?? [],
    (each) => `${each.name} ${each.board ?? ''} ${each.by ?? ''}`,
    {
        platform: (each) => each.name,
        board: (each) => each.board,
        blocks: (each) => each.blocks,
        state: (each) => (each.errors == null ? undefined : each.errors * MANY + (each.warnings ?? 0)),
        changed: (each) => each.savedAt,
    },
)
const COLUMNS = ['Platform', 'Board', 'Blocks', 'State', 'Changed']

const file = ref<HTMLInputElement>()
const removing = shallowRef<PlatformSummary>()
const beginning = ref(false)

/** An empty platform on the smallest board, with the guide beside it. */
async function begin(): Promise<void> {
    beginning.value = true
    try {
        const library = await answer(client.GET('/api/library'))
        const board = library.boards.find((each) => !each.own)
        const created = await answer(
            client.POST('/api/platforms', {
                body: { name: 'My first platform', board: board?.identity ?? '' },
            }),
        )
        setGuide('on', created.id)
        await router.push(`/p/${created.id}/compose`)
    } catch (problem) {
        tellProblem(problem)
    } finally {
        beginning.value = false
    }
}

async function importDocument(event: Event): Promise<void> {
    const chosen = (event.target as HTMLInputElement).files?.[0]
    if (!chosen) {
        return
    }
    try {
        const created = await upload<{ id: string }>(
            `/api/platforms/import?name=${encodeURIComponent(chosen.name)}`,
            chosen,
        )
        await router.push(`/p/${created.id}/compose`)
    } catch (problem) {
        tellProblem(problem)
    } finally {
        if (file.value) {
            file.value.value = ''
        }
    }
}

async function copyPlatform(platform: PlatformSummary): Promise<void> {
    try {
        await answer(client.POST('/api/platforms/{id}/copy', { params: { path: { id: platform.id } } }))
        tell('done', 'Copied', platform.name)
    } catch (problem) {
        tellProblem(problem)
    }
    await queries.invalidateQueries({ queryKey: ['platforms'] })
}

async function readAgain(): Promise<void> {
    await queries.invalidateQueries({ queryKey: ['platforms'] })
    await queries.invalidateQueries({ queryKey: ['removed-platforms'] })
}

async function bringBack(id: string, name: string): Promise<void> {
    try {
        await answer(client.POST('/api/removed-platforms/{id}/bring-back', { params: { path: { id } } }))
        tell('done', 'Brought back', `${name}, with its history and its programs.`)
    } catch (problem) {
        tellProblem(problem)
    }
    await readAgain()
}

async function remove(platform: PlatformSummary): Promise<void> {
    removing.value = undefined
    try {
        await answer(client.DELETE('/api/platforms/{id}', { params: { path: { id: platform.id } } }))
    } catch (problem) {
        tellProblem(problem)
    }
    await readAgain()
}

function state(platform: PlatformSummary): string {
    if (platform.errors == null) {
        return 'being checked'
    }
    const parts = []
    if (platform.errors) {
        parts.push(platform.errors === 1 ? '1 error' : `${platform.errors} errors`)
    }
    if (platform.warnings) {
        parts.push(platform.warnings === 1 ? '1 warning' : `${platform.warnings} warnings`)
    }
    return parts.length ? parts.join(', ') : 'no errors or warnings'
}
</script>

<template>
    <HomeFrame>
        <div class="flex items-center gap-3">
            <h1 class="flex-1 text-2xl font-semibold">Platforms</h1>
            <input
                v-if="platforms && platforms.length > 1"
                v-model="find"
                type="search"
                class="input w-60"
                placeholder="Find by name, board or author"
                aria-label="Find by name or board"
                @keydown.escape="find = ''"
            />
            <input
                ref="file"
                type="file"
                accept=".json,application/json"
                class="sr-only"
                aria-label="Platform document to import"
                tabindex="-1"
                @change="importDocument"
            />
            <button class="button" @click="file?.click()">Import a document</button>
            <RouterLink to="/new" class="button-main">New platform</RouterLink>
        </div>
        <div
            v-if="guide === 'offered'"
            class="mt-4 flex items-center gap-3 rounded border border-accent bg-accent-soft px-4 py-2"
        >
            <p class="flex-1">
                New here? Go from a bare board to a checked platform with console, lamps and timer in two
                minutes.
            </p>
            <button class="button-main" :disabled="beginning" @click="begin">Show me</button>
            <button class="button" @click="setGuide('off')">No, thanks</button>
        </div>
        <p v-if="error" class="mt-6 text-error">{{ error.message }}</p>
        <p v-else-if="!platforms" class="mt-6 text-soft">Reading…</p>
        <div v-else-if="platforms.length === 0" class="sheet mt-6 p-10 text-center">
            <p class="text-lg font-semibold">There is no platform yet</p>
            <p class="mt-1 text-soft">
                Choose a board and a recipe, and a processor with memory and a console is wired for you.
            </p>
            <RouterLink to="/new" class="button-main mt-4">New platform</RouterLink>
        </div>
        <p v-else-if="shown.length === 0" class="sheet mt-6 p-10 text-center text-soft">
            No matches for “{{ find }}”.
            <button class="text-accent hover:underline" @click="find = ''">Show all platforms</button>
        </p>
        <table v-else class="sheet mt-6 w-full border-separate border-spacing-0">
            <thead>
                <tr class="table-head">
                    <SortHead
                        v-for="column in COLUMNS"
                        :key="column"
                        v-model="order"
                        class="!px-4 !py-2"
                        :class="column === 'Blocks' ? 'text-right' : ''"
                        :by="column.toLowerCase()"
                        :title="column"
                    />
                    <th scope="col" class="px-4 py-2"><span class="sr-only">Actions</span></th>
                </tr>
            </thead>
            <tbody>
                <tr v-for="platform in shown" :key="platform.id" class="hover:bg-paper">
                    <td class="border-t border-line px-4 py-2">
                        <RouterLink
                            :to="`/p/${platform.id}/compose`"
                            class="font-semibold text-accent hover:underline"
                            >{{ platform.name }}</RouterLink
                        >
                        <div class="text-[13px] text-soft">revision {{ platform.revision }}</div>
                    </td>
                    <td class="border-t border-line px-4 py-2">{{ platform.board }}</td>
                    <td class="border-t border-line px-4 py-2 text-right font-mono">{{ platform.blocks }}</td>
                    <td
                        class="border-t border-line px-4 py-2"
                        :class="
                            platform.errors ? 'text-error' : platform.warnings ? 'text-warn' : 'text-soft'
                        "
                    >
                        {{ state(platform) }}
                        <div
                            v-if="platform.fit"
                            class="text-[13px] text-soft"
                            title="The scarcest part of the device, as estimated"
                        >
                            {{ platform.fit }}
                        </div>
                    </td>
                    <td class="border-t border-line px-4 py-2 text-soft">
                        {{ localTime(platform.savedAt) }}
                        <div v-if="platform.by" class="text-[13px]">by {{ platform.by }}</div>
                    </td>
                    <td class="border-t border-line px-4 py-2 text-right whitespace-nowrap">
                        <template v-if="removing?.id === platform.id">
                            <span class="mr-2">Remove it?</span>
                            <button class="button !text-error" @click="remove(platform)">Remove</button>
                            <button class="button ml-1" @click="removing = undefined">Keep</button>
                        </template>
                        <template v-else>
                            <button
                                class="button"
                                :aria-label="`Copy ${platform.name}`"
                                @click="copyPlatform(platform)"
                            >
                                Copy
                            </button>
                            <a
                                class="button ml-1"
                                :href="`/api/platforms/${platform.id}/document`"
                                :aria-label="`Download the document of ${platform.name}`"
                                >Download</a
                            >
                            <button
                                class="button ml-1 !text-soft"
                                :aria-label="`Remove ${platform.name}`"
                                @click="removing = platform"
                            >
                                Remove
                            </button>
                        </template>
                    </td>
                </tr>
            </tbody>
        </table>
        <details v-if="removed?.length" class="mt-4 text-soft">
            <summary class="cursor-pointer">
                {{ removed.length === 1 ? '1 removed platform' : `${removed.length} removed platforms` }} that
                can still be brought back
            </summary>
            <ul class="sheet mt-2">
                <li
                    v-for="each in removed"
                    :key="each.id"
                    class="flex items-center gap-4 border-t border-line px-4 py-2 first:border-t-0"
                >
                    <span class="flex-1 text-ink">{{ each.name }}</span>
                    <span class="text-[13px]"
                        >removed {{ localTime(each.removedAt) }}, kept until
                        {{ localTime(each.goneAt) }}</span
                    >
                    <button
                        class="button"
                        :aria-label="`Bring back ${each.name}`"
                        @click="bringBack(each.id, each.name)"
                    >
                        Bring back
                    </button>
                </li>
            </ul>
        </details>
    </HomeFrame>
</template>
