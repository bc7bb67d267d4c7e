<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, client } from '../api/client'
import { copy } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'
import { pieces, type Kind } from './verilog'

const LARGEST_COLOURED = 200_000
const COLOURS: Record<Kind, string> = {
    comment: 'text-soft italic',
    directive: 'text-warn',
    keyword: 'text-accent',
    number: 'font-semibold',
    text: 'text-warn',
    plain: '',
}

const context = usePlatform()
const revision = computed(() => context.platform.value?.revision)
const { data: hardware, error } = useQuery({
    queryKey: ['hardware', context.id, context.at, revision],
    queryFn: () =>
        answer(
            client.GET('/api/platforms/{id}/hardware', {
                params: { path: { id: context.id }, query: { at: context.at.value } },
            }),
        ),
    placeholderData: (before) => before,
})
const chosen = ref<string>()
const path = computed(() => {
    const files = hardware.value?.files ?? []
    const top = `hdl/${hardware.value?.top}.v`
    return files.some((each) => each.path === chosen.value)
        ? chosen.value
        : (files.find((each) => each.path === top)?.path ?? files[0]?.path)
})
const url = computed(
    () =>
        `/api/platforms/${context.id}/hardware/file?path=${encodeURIComponent(path.value ?? '')}${
            context.at.value === undefined ? '' : `&at=${String(context.at.value)}`
        }`,
)
const { data: text } = useQuery({
    queryKey: ['hardware-file', context.id, context.at, revision, path],
    enabled: computed(() => path.value !== undefined),
    queryFn: async () => (await fetch(url.value)).text(),
    placeholderData: (before) => before,
})
const lines = computed(() => {
    const all = text.value ?? ''
    const coloured = all.length <= LARGEST_COLOURED && path.value?.endsWith('.v')
    return all.split('\n').map((line) => (coloured ? pieces(line) : [{ kind: 'plain' as Kind, text: line }]))
})
const others = computed(() => {
    const inTree = new Set(hardware.value?.instances.map((each) => each.path))
    return (hardware.value?.files ?? []).filter((each) => !inTree.has(each.path))
})
</script>

<template>
    <p v-if="error" class="p-6 text-error">{{ error.message }}</p>
    <div
        v-else-if="hardware?.notBuilt.length"
        v-scrolls
        class="mx-auto h-full max-w-[900px] overflow-auto p-6"
    >
        <h1 class="text-lg font-semibold">Hardware</h1>
        <p class="mt-1">
            There is no hardware for everything on this platform yet, so no files are written. What is
            missing:
        </p>
        <table class="mt-4 w-full bg-sheet text-left">
            <thead>
                <tr class="border-b border-line text-[13px] text-soft">
                    <th class="px-3 py-1.5 font-normal">part of the platform</th>
                    <th class="px-3 py-1.5 font-normal">what is missing</th>
                </tr>
            </thead>
            <tbody>
                <tr
                    v-for="each in hardware.notBuilt"
                    :key="each.subject + each.why"
                    class="border-b border-line"
                >
                    <td class="px-3 py-1.5 font-mono text-[13px]">{{ each.subject }}</td>
                    <td class="px-3 py-1.5">{{ each.why }}</td>
                </tr>
            </tbody>
        </table>
        <p class="mt-4 text-[13px] text-soft">
            Everything else can be done meanwhile: the hand-off for software, boot images and the bench do not
            need it.
        </p>
    </div>
    <div v-else-if="hardware" class="flex h-full">
        <nav
            class="flex w-[330px] shrink-0 flex-col gap-3 overflow-auto border-r border-line bg-sheet p-4"
            aria-label="Modules and files"
        >
            <div>
                <h1 class="text-lg font-semibold">Hardware</h1>
                <p class="text-[13px] text-soft">
                    Verilog from revision {{ hardware.revision }}, fingerprint
                    <button
                        class="font-mono hover:text-accent"
                        title="Copy"
                        @click="copy(hardware.fingerprint)"
                    >
                        {{ hardware.fingerprint }}
                    </button>
                </p>
            </div>
            <a class="button-main" :href="`/api/platforms/${context.id}/handoff/zip`">
                Download all files as ZIP
            </a>
            <section aria-label="Module tree">
                <h2 class="mb-1 text-[13px] text-soft">Module tree: instance, module</h2>
                <ul>
                    <li v-for="(each, at) in hardware.instances" :key="at">
                        <button
                            class="flex w-full items-baseline gap-2 rounded py-0.5 pr-2 text-left text-[13px] hover:bg-paper"
                            :class="path === each.path ? 'bg-accent-soft' : ''"
                            :style="{ paddingLeft: `${8 + 16 * each.depth}px` }"
                            :aria-current="path === each.path"
                            :title="each.module"
                            @click="chosen = each.path"
                        >
                            <span class="font-mono">{{ each.name }}</span>
                            <span v-if="each.depth" class="truncate font-mono text-[12px] text-soft">{{
                                each.module
                            }}</span>
                        </button>
                    </li>
                </ul>
            </section>
            <section aria-label="Other files">
                <h2 class="mb-1 text-[13px] text-soft">Library, lists and simulation</h2>
                <ul>
                    <li v-for="each in others" :key="each.path">
                        <button
                            class="w-full truncate rounded px-2 py-0.5 text-left font-mono text-[13px] hover:bg-paper"
                            :class="path === each.path ? 'bg-accent-soft' : ''"
                            :aria-current="path === each.path"
                            :title="each.title"
                            @click="chosen = each.path"
                        >
                            {{ each.path }}
                        </button>
                    </li>
                </ul>
            </section>
        </nav>
        <section class="flex min-w-0 flex-1 flex-col" aria-label="Preview">
            <div class="flex items-center gap-3 border-b border-line px-4 py-2">
                <h2 class="flex-1 truncate font-mono">{{ path }}</h2>
                <button class="button" @click="copy(text ?? '')">Copy</button>
                <a class="button" :href="url">Download</a>
            </div>
            <pre
                class="min-h-0 flex-1 overflow-auto bg-sheet px-4 py-3 font-mono text-[13px] leading-[1.45]"
                tabindex="0"
                role="region"
                :aria-label="`Contents of ${path}`"
            ><template v-for="(line, at) in lines" :key="at"><span v-for="(piece, part) in line" :key="part" :class="COLOURS[piece.kind]">{{ piece.text }}</span>{{ '\n' }}</template></pre>
        </section>
    </div>
</template>
