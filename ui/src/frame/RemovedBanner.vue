<script setup lang="ts">
import { answer, client, Refusal } from '../api/client'
import { onBeforeUnmount, onMounted, ref } from 'vue'
import { tell, tellProblem } from './notices'
import { sentence } from './sentence'
import { usePlatform } from './platform'

const props = defineProps<{ id: string; name: string }>()
const context = usePlatform()
/** Who removed it, as the server says it. */
const who = ref('')

/** Asks until the server says it: the platform may be removed while nothing gets through. */
const AGAIN = 1000
let timer: number | undefined
let left = false
async function ask(): Promise<void> {
    try {
        await answer(client.GET('/api/platforms/{id}', { params: { path: { id: props.id } } }))
    } catch (refusal) {
        if (refusal instanceof Refusal && refusal.status === 404) {
            who.value = refusal.message
        } else if (!left) {
            timer = window.setTimeout(() => void ask(), AGAIN)
        }
    }
}
onMounted(ask)
onBeforeUnmount(() => {
    left = true
    window.clearTimeout(timer)
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
