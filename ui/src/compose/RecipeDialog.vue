<script setup lang="ts">
import { ref, watch } from 'vue'
import { answer, client } from '../api/client'
import DialogFrame from '../frame/DialogFrame.vue'
import { tell, tellProblem } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import { naming } from './naming'

const context = usePlatform()
const title = ref('')
const summary = ref('')

watch(
    () => naming.recipe,
    (group) => {
        title.value = group ? group.slice(0, 1).toUpperCase() + group.slice(1).replaceAll('_', ' ') : ''
        summary.value = ''
    },
)

async function save(): Promise<void> {
    const group = naming.recipe
    if (group === undefined) {
        return
    }
    try {
        const saved = await answer(
            client.POST('/api/platforms/{id}/recipes', {
                params: { path: { id: context.id } },
                body: { group, title: title.value, summary: summary.value },
            }),
        )
        naming.recipe = undefined
        tell('done', 'Recipe saved', `${saved.name} is offered for new platforms and in Add a block`)
    } catch (problem) {
        tellProblem(problem)
    }
}
</script>

<template>
    <DialogFrame
        :open="naming.recipe !== undefined"
        title="Save the group as a recipe"
        :width="480"
        @close="naming.recipe = undefined"
    >
        <form class="mt-2 flex flex-col gap-3" @submit.prevent="save">
            <p>
                Blocks, parameters, board parts and the streams between them go into the recipe. Clocks,
                buses, addresses and interrupts are proposed again where it is used.
            </p>
            <label class="grid grid-cols-[88px_1fr] items-center gap-2">
                Title<input v-model="title" class="input" maxlength="80" />
            </label>
            <label class="grid grid-cols-[88px_1fr] items-center gap-2">
                Summary<input
                    v-model="summary"
                    class="input"
                    maxlength="200"
                    placeholder="What it is good for"
                />
            </label>
        </form>
        <template #buttons>
            <button class="button" @click="naming.recipe = undefined">Cancel</button>
            <button class="button-main" :disabled="!title.trim()" @click="save">Save</button>
        </template>
    </DialogFrame>
</template>
