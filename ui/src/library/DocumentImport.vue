<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { upload } from '../api/client'
import { tell, tellProblem } from '../frame/notices'

/** Takes a document of the library from a file, and shows what it became. */
const props = defineProps<{
    /** What it holds, as in "board". */
    what: string
    /** Where it is sent, and where what it became is shown. */
    to: string
    shownAt: string
    hint: string
}>()

const router = useRouter()
const queries = useQueryClient()
const file = ref<HTMLInputElement>()

async function take(event: Event): Promise<void> {
    const input = event.target as HTMLInputElement
    const chosen = input.files?.[0]
    input.value = ''
    if (!chosen) {
        return
    }
    try {
        const saved = await upload<{ identity: string }>(
            `${props.to}?name=${encodeURIComponent(chosen.name)}`,
            chosen,
        )
        await queries.invalidateQueries({ queryKey: ['library'] })
        await router.push(`${props.shownAt}/${saved.identity}`)
        tell('done', `${props.what} imported`, saved.identity)
    } catch (problem) {
        tellProblem(problem)
    }
}
</script>

<template>
    <button class="button !py-0.5" :title="hint" @click="file?.click()">Import…</button>
    <input
        ref="file"
        type="file"
        accept=".json,application/json"
        class="hidden"
        :aria-label="`${what} document`"
        @change="take"
    />
</template>
