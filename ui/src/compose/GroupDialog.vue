<script setup lang="ts">
import { ref, watch } from 'vue'
import DialogFrame from '../frame/DialogFrame.vue'
import { usePlatform } from '../frame/platform'
import { naming } from './naming'

const context = usePlatform()
const name = ref('')

watch(
    () => naming.group,
    (blocks) => {
        const group = context.platform.value?.blocks.find((block) => blocks?.includes(block.name))?.group
        name.value = group ?? ''
    },
)

async function group(): Promise<void> {
    const blocks = naming.group ?? []
    const wished = name.value.trim()
    naming.group = undefined
    if (await context.edit({ edit: 'group', name: wished, blocks })) {
        context.selected.value = `group ${wished}`
    }
}
</script>

<template>
    <DialogFrame
        :open="naming.group !== undefined"
        title="Group blocks"
        :width="480"
        @close="naming.group = undefined"
    >
        <form class="mt-2 flex flex-col gap-3" @submit.prevent="group">
            <p>
                {{ naming.group?.join(', ') }} belong together from now on. Their names begin with the name of
                the group, here and in every file.
            </p>
            <label class="flex items-center gap-3">
                Name
                <input v-model="name" class="input flex-1" placeholder="such as trigger" autofocus />
            </label>
            <p v-if="name.trim() && naming.group" class="text-[13px] text-soft">
                {{ naming.group[0] }} becomes
                <span class="font-mono">{{ name.trim() }}_{{ naming.group[0] }}</span
                >.
            </p>
        </form>
        <template #buttons>
            <button class="button" @click="naming.group = undefined">Cancel</button>
            <button class="button-main" :disabled="!name.trim()" @click="group">Group them</button>
        </template>
    </DialogFrame>
</template>
