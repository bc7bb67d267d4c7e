<script setup lang="ts">
import { answer, client } from '../api/client'
import { onMounted, ref } from 'vue'
import { tell, tellProblem } from './notices'
import { sentence } from './sentence'
import { usePlatform } from './platform'

const props = defineProps<{ id: string; name: string }>()
const context = usePlatform()
/** Who removed it, as the server says it. */
const who = ref('')

onMounted(async () => {
    try {
        await answer(client.GET('/api/platforms/{id}', { params: { path: { id: props.id } } }))
    } catch (refusal) {
        who.value = refusal instanceof Error ? refusal.message : ''
    }
})

async function bringBack(): Promise<void> {
    try {
        const path = { id: props.id }
        await answer(client.POST('/api/removed-platforms/{id}/bring-back', { params: { path } }))
        tell('done', 'Brought back', `${props.name}, with its history and its programs.`)
        await context.refresh()
    } catch (problem) {
        tellProblem(problem)
    }
}
</script>

<template>
    <p class="flex items-center gap-3 border-b border-error bg-error-soft px-4 py-1.5" role="alert">
        <span class="flex-1"
            ><strong>{{ who ? sentence(who) : 'This platform has been removed.' }}</strong> What you see is
            how it was last; it cannot be changed.</span
        >
        <button class="button" @click="bringBack">Bring it back</button>
        <RouterLink class="button-main" to="/">All platforms</RouterLink>
    </p>
</template>
