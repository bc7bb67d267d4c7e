<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, client } from '../api/client'
import { copy } from '../frame/notices'
import { usePlatform } from '../frame/platform'

const context = usePlatform()
const revision = computed(() => context.platform.value?.revision)
const { data: handoff, error } = useQuery({
    queryKey: ['handoff', context.id, context.at, revision],
    queryFn: () =>
        answer(
            client.GET('/api/platforms/{id}/handoff', {
                params: { path: { id: context.id }, query: { at: context.at.value } },
            }),
        ),
    placeholderData: (before) => before,
})
/** The earlier revision that is looked at, for the address of a file. */
const at = computed(() => (context.at.value === undefined ? '' : `&at=${String(context.at.value)}`))
const chosen = ref<string>()
const file = computed(
    () => handoff.value?.files.find((each) => each.path === chosen.value) ?? handoff.value?.files[0],
)
const errors = computed(
    () => context.platform.value?.findings.filter((each) => each.grade === 'error').length ?? 0,
)
const url = (path: string): string =>
    `/api/platforms/${context.id}/handoff/file?path=${encodeURIComponent(path)}${at.value}`
const size = (bytes: number): string => (bytes < 1024 ? `${bytes} B` : `${(bytes / 1024).toFixed(1)} KiB`)
</script>

<template>
    <div class="flex h-full">
        <nav
            class="flex w-[330px] shrink-0 flex-col gap-3 overflow-auto border-r border-line bg-sheet p-4"
            aria-label="Files"
        >
            <div>
                <h1 class="text-lg font-semibold">Hand-off</h1>
                <p v-if="handoff" class="text-[13px] text-soft">
                    from revision {{ handoff.revision }}, fingerprint
                    <button
                        class="font-mono hover:text-accent"
                        title="Copy"
                        @click="copy(handoff.fingerprint)"
                    >
                        {{ handoff.fingerprint }}
                    </button>
                </p>
            </div>
            <a v-if="handoff" class="button-main" :href="`/api/platforms/${context.id}/handoff/zip?${at}`">
                Download all as {{ handoff.baseName }}.zip
            </a>
            <p v-if="errors" class="rounded bg-error-soft px-2 py-1 text-[13px] text-error">
                The platform has {{ errors }} {{ errors === 1 ? 'error' : 'errors' }}: what is wrong there is
                wrong in these files too.
            </p>
            <ul>
                <li v-for="each in handoff?.files" :key="each.path">
                    <button
                        class="flex w-full items-baseline justify-between gap-2 rounded px-2 py-1 text-left hover:bg-paper"
                        :class="file?.path === each.path ? 'bg-accent-soft' : ''"
                        :aria-current="file?.path === each.path"
                        @click="chosen = each.path"
                    >
                        <span class="min-w-0">
                            <span class="block truncate font-mono text-[13px]">{{ each.path }}</span>
                            <span class="block text-[13px] text-soft">{{ each.title }}</span>
                        </span>
                        <span class="font-mono text-[12px] whitespace-nowrap text-soft">{{
                            size(each.sizeBytes)
                        }}</span>
                    </button>
                </li>
            </ul>
        </nav>
        <section class="flex min-w-0 flex-1 flex-col" aria-label="Preview">
            <p v-if="error" class="p-6 text-error">{{ error.message }}</p>
            <template v-else-if="file">
                <div class="flex items-center gap-3 border-b border-line px-4 py-2">
                    <h2 class="flex-1 font-mono">{{ file.path }}</h2>
                    <button class="button" @click="copy(file.text)">Copy</button>
                    <a class="button" :href="url(file.path)">Download</a>
                </div>
                <pre
                    class="min-h-0 flex-1 overflow-auto bg-sheet px-4 py-3 font-mono text-[13px] leading-[1.45]"
                    tabindex="0"
                    role="region"
                    :aria-label="`Contents of ${file.path}`"
                    >{{ file.text }}</pre>
            </template>
        </section>
    </div>
</template>
