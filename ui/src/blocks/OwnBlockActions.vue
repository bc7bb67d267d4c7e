<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client } from '../api/client'
import DialogFrame from '../frame/DialogFrame.vue'
import { tellProblem } from '../frame/notices'

const props = defineProps<{ identity: string; title: string }>()
const router = useRouter()
const queries = useQueryClient()
/** Platforms that use it, while it is asked whether it shall go. */
const users = ref<string[]>()

async function ask(): Promise<void> {
    try {
        users.value = await answer(
            client.GET('/api/library/blocks/{identity}/platforms', {
                params: { path: { identity: props.identity } },
            }),
        )
    } catch (problem) {
        tellProblem(problem)
    }
}

async function remove(): Promise<void> {
    users.value = undefined
    try {
        await answer(
            client.DELETE('/api/library/blocks/{identity}', {
                params: { path: { identity: props.identity } },
            }),
        )
        await queries.invalidateQueries({ queryKey: ['library'] })
        await router.push('/library')
    } catch (problem) {
        tellProblem(problem)
    }
}
</script>

<template>
    <RouterLink class="button" :to="`/blocks/${identity}/edit`">Edit</RouterLink>
    <a
        class="button"
        :href="`/api/library/blocks/${identity}/document`"
        title="One file with definition, HDL and drivers, for another installation"
        >Download</a
    >
    <button class="button !text-soft" @click="ask">Remove</button>
    <DialogFrame
        :open="users !== undefined"
        :title="`Remove ${title}?`"
        :width="520"
        @close="users = undefined"
    >
        <p v-if="users?.length" class="mt-2">
            {{ users.join(', ') }} {{ users.length === 1 ? 'uses' : 'use' }} it. Nothing in
            {{ users.length === 1 ? 'it' : 'them' }} is lost, but the blocks of this type do nothing until it
            is back. Download it first if you may need it again.
        </p>
        <p v-else class="mt-2">No platform uses it.</p>
        <template #buttons>
            <button class="button" @click="users = undefined">Keep it</button>
            <button class="button-main" @click="remove">Remove it</button>
        </template>
    </DialogFrame>
</template>
