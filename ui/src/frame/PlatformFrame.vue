<script setup lang="ts">
import { MoonIcon, SunIcon } from '@heroicons/vue/20/solid'
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import AddBlockDialog from '../compose/AddBlockDialog.vue'
import WiringDialog from '../compose/WiringDialog.vue'
import FindingsBar from '../findings/FindingsBar.vue'
import { browser } from '../api/author'
import BoardDialog from '../boards/BoardDialog.vue'
import ActionPalette from './ActionPalette.vue'
import DialogFrame from './DialogFrame.vue'
import { closeAll, isDialogOpen, isTyping, open } from './actions'
import EditableName from './EditableName.vue'
import GuidePanel from './GuidePanel.vue'
import { providePlatform } from './platform'
import RemovedBanner from './RemovedBanner.vue'
import { useSelectionInAddress } from './selectionInAddress'
import { theme, toggleTheme } from './theme'
import { localTime } from './time'

const route = useRoute()
const router = useRouter()
const id = String(route.params.id)
const isBench = computed(() => route.path.endsWith('/bench'))
/** An earlier revision that is looked at, which the address names. */
const at = computed(() => (route.query.at ? Number(route.query.at) : undefined))
const context = providePlatform(id, at)
useSelectionInAddress(context.selected)
const { platform, error, saving, waiting, connected, gone } = context

watch(
    () => open.add || open.wiring || open.board,
    (opened) => {
        if (opened && context.refuses()) {
            closeAll()
        }
    },
)

const views = [
    {
        family: 'build',
        entries: [
            { path: 'compose', name: 'Compose' },
            { path: 'addresses', name: 'Addresses' },
            { path: 'interrupts', name: 'Interrupts' },
            { path: 'clocks', name: 'Clocks' },
            { path: 'pins', name: 'Pins' },
            { path: 'fit', name: 'Fit' },
        ],
    },
    {
        family: 'deliver',
        entries: [
            { path: 'hardware', name: 'Hardware' },
            { path: 'handoff', name: 'Hand-off' },
            { path: 'boot', name: 'Boot' },
            { path: 'bench', name: 'Bench' },
        ],
    },
]

const state = computed(() => {
    if (gone.value) {
        return 'removed'
    }
    if (waiting.value > 0) {
        return `offline: ${String(waiting.value)} ${waiting.value === 1 ? 'edit' : 'edits'} waiting`
    }
    if (!connected.value) {
        return 'offline, connecting again'
    }
    if (at.value !== undefined) {
        return 'read-only'
    }
    return saving.value ? 'saving' : 'saved'
})

watch(
    () => platform.value?.name,
    (name) => {
        document.title = name ? `${name} · Polymetron` : 'Polymetron'
    },
    { immediate: true },
)

watch(() => route.path, closeAll)

/** What undo would take back was made at another browser: then it asks first. */
const othersUndo = ref<string>()

async function undo(): Promise<void> {
    const by = platform.value?.undoBy
    if (by?.browser && by.browser !== browser && !context.refuses()) {
        othersUndo.value = by.name ?? 'another user'
    } else {
        await context.undo()
    }
}

async function undoAllTheSame(): Promise<void> {
    othersUndo.value = undefined
    await context.undo()
}

function onLeave(event: BeforeUnloadEvent): void {
    if (waiting.value > 0) {
        event.preventDefault()
    }
}

function onKey(event: KeyboardEvent): void {
    const command = event.ctrlKey || event.metaKey
    const key = event.key.toLowerCase()
    if (command && key === 'k') {
        event.preventDefault()
        open.palette ||= !isDialogOpen()
        return
    }
    if (isTyping(event) || isDialogOpen()) {
        return
    }
    if (command && key === 'z') {
        event.preventDefault()
        void (event.shiftKey ? context.redo() : undo())
    } else if (command && key === 'y') {
        event.preventDefault()
        void context.redo()
    } else if (!command && !event.altKey && key === 'a') {
        event.preventDefault()
        open.addAt = undefined
        open.add = true
    } else if (!command && !event.altKey && key === 'w') {
        event.preventDefault()
        open.wiring = true
    } else if (event.key === 'Escape') {
        context.selected.value = undefined
    }
}
onMounted(() => {
    window.addEventListener('keydown', onKey)
    window.addEventListener('beforeunload', onLeave)
})
onBeforeUnmount(() => {
    window.removeEventListener('keydown', onKey)
    window.removeEventListener('beforeunload', onLeave)
    document.title = 'Polymetron'
})
</script>

<template>
    <div class="flex h-full flex-col">
        <header class="border-b border-line bg-sheet">
            <div class="flex h-11 items-center gap-4 px-4">
                <RouterLink to="/" class="flex items-center gap-2" aria-label="All platforms">
                    <svg viewBox="0 0 20 20" class="size-5 text-accent" aria-hidden="true">
                        <path fill="currentColor" d="M1 3h4v14H1zM8 8h4v9H8zM15 11h4v6h-4z" />
                    </svg>
                </RouterLink>
                <EditableName
                    v-if="platform"
                    label="Name of the platform"
                    class="text-lg font-semibold"
                    :value="platform.name"
                    @change="(name) => context.edit({ edit: 'rename-platform', name })"
                />
                <span
                    v-if="platform"
                    class="text-[13px] whitespace-nowrap text-soft"
                    :class="{ '!text-warn': !connected || waiting > 0 }"
                >
                    <RouterLink
                        :to="`/p/${id}/history`"
                        class="hover:text-accent hover:underline"
                        active-class="font-semibold !text-accent"
                        title="All revisions"
                        >revision {{ platform.revision }}</RouterLink
                    >
                    · {{ state }}
                </span>
                <button
                    v-if="platform"
                    class="truncate text-[13px] text-soft hover:text-accent"
                    title="Change the board"
                    @click="open.board = true"
                >
                    {{ platform.boardTitle }}
                </button>
                <span class="flex-1"></span>
                <button
                    class="flex w-80 min-w-40 shrink items-center justify-between gap-2 rounded border border-line bg-paper px-3 py-1 text-left text-soft hover:border-accent"
                    @click="open.palette = true"
                >
                    <span class="truncate">Find a block, address or action</span>
                    <kbd class="text-[12px] whitespace-nowrap">Ctrl K</kbd>
                </button>
                <button
                    class="button !px-2"
                    :disabled="!platform?.undo"
                    :title="platform?.undo ? `Undo: ${platform.undo} (Ctrl Z)` : 'Nothing to undo'"
                    @click="undo"
                >
                    Undo
                </button>
                <button
                    class="button !px-2"
                    :disabled="!platform?.redo"
                    :title="platform?.redo ? `Redo: ${platform.redo} (Ctrl Shift Z)` : 'Nothing to redo'"
                    @click="context.redo"
                >
                    Redo
                </button>
                <button
                    class="text-soft hover:text-ink"
                    :aria-label="theme === 'light' ? 'Dark colours' : 'Light colours'"
                    @click="toggleTheme"
                >
                    <MoonIcon v-if="theme === 'light'" class="size-5" />
                    <SunIcon v-else class="size-5" />
                </button>
            </div>
            <nav class="flex min-h-9 flex-wrap items-stretch gap-x-6 px-4" aria-label="Views">
                <div
                    v-for="family in views"
                    :key="family.family"
                    class="flex flex-wrap items-stretch gap-x-5"
                >
                    <span class="self-center text-[13px] text-soft">{{ family.family }}</span>
                    <RouterLink
                        v-for="view in family.entries"
                        :key="view.path"
                        :to="{ path: `/p/${id}/${view.path}`, query: at ? { at } : {} }"
                        class="flex min-h-9 items-center border-b-2 border-transparent whitespace-nowrap hover:text-accent"
                        active-class="!border-accent font-semibold text-accent"
                    >
                        {{ view.name }}
                    </RouterLink>
                </div>
            </nav>
        </header>
        <p
            v-if="at !== undefined && platform"
            class="flex items-center gap-3 border-b border-warn bg-warn-soft px-4 py-1.5"
            role="status"
        >
            <span class="flex-1"
                >Viewing <strong>revision {{ at }}</strong> of {{ localTime(platform.savedAt) }}, read-only.
                <template v-if="isBench">The bench runs the newest revision all the same.</template></span
            >
            <RouterLink class="button" :to="`/p/${id}/history`">History</RouterLink>
            <RouterLink class="button-main" :to="{ path: route.path }">Back to the newest</RouterLink>
        </p>
        <RemovedBanner v-if="gone && platform" :id="id" :name="platform.name" />
        <main class="min-h-0 flex-1" :class="{ 'border-4 border-warn': at !== undefined }">
            <div v-if="error && !platform" class="mx-auto mt-24 max-w-lg text-center">
                <h1 class="text-xl font-semibold">This platform cannot be shown</h1>
                <p class="mt-2">{{ error.message }}</p>
                <button class="button-main mt-4" @click="router.push('/')">All platforms</button>
            </div>
            <p v-else-if="!platform" class="mt-24 text-center text-soft">Reading the platform…</p>
            <RouterView v-else />
        </main>
        <FindingsBar v-if="platform" />
        <GuidePanel v-if="platform" />
        <ActionPalette v-if="platform" />
        <AddBlockDialog v-if="platform && at === undefined" />
        <WiringDialog v-if="platform && at === undefined" />
        <BoardDialog v-if="platform && at === undefined" />
        <DialogFrame
            :open="othersUndo !== undefined"
            :title="`Undo a change of ${othersUndo}?`"
            :width="520"
            @close="othersUndo = undefined"
        >
            <p class="mt-1">
                The last change was not made at this browser: <strong>{{ platform?.undo }}</strong>. Undo
                takes it back for everybody; Redo makes it again.
            </p>
            <template #buttons>
                <button class="button" @click="othersUndo = undefined">Keep it</button>
                <button class="button-main" @click="undoAllTheSame">Undo it</button>
            </template>
        </DialogFrame>
    </div>
</template>
