<script setup lang="ts">
import { ref } from 'vue'
import { answer, client, type BlockSheet } from '../api/client'
import DialogFrame from '../frame/DialogFrame.vue'
import { tellProblem } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'

const props = defineProps<{ block: BlockSheet }>()
const context = usePlatform()
const looked = ref<{
    type: string
    version: string
    changes: string[]
    breaks: { grade: string; subject: string; what: string }[]
}>()

async function look(type: string, version: string): Promise<void> {
    try {
        const preview = await answer(
            client.GET('/api/platforms/{id}/upgrade', {
                params: { path: { id: context.id }, query: { block: props.block.name, type } },
            }),
        )
        looked.value = { type, version, ...preview }
    } catch (problem) {
        tellProblem(problem)
    }
}

function change(): void {
    const type = looked.value?.type
    looked.value = undefined
    if (type) {
        void context.edit({ edit: 'set-type', block: props.block.name, type })
    }
}
</script>

<template>
    <p class="flex flex-wrap items-center gap-x-2 px-1 text-[13px] text-soft">
        {{ block.title }} {{ block.type.split(':').at(-1) }}
        <button
            v-for="version in block.versions"
            :key="version.type"
            class="text-accent hover:underline"
            @click="look(version.type, version.version)"
        >
            {{ version.newer ? 'newer' : 'older' }}: {{ version.version }}…
        </button>
    </p>
    <DialogFrame
        :open="looked !== undefined"
        :title="`${block.name} as version ${looked?.version ?? ''}`"
        @close="looked = undefined"
    >
        <div v-if="looked" v-scrolls class="mt-2 flex min-h-0 flex-col gap-3 overflow-y-auto">
            <section>
                <h3 class="font-semibold">What changes</h3>
                <ul v-if="looked.changes.length" class="mt-1 list-disc pl-5 text-[14px]">
                    <li v-for="each in looked.changes" :key="each">{{ each }}</li>
                </ul>
                <p v-else class="text-soft">Nothing that the platform can see.</p>
            </section>
            <section v-if="looked.breaks.length">
                <h3 class="font-semibold text-warn">What has to be settled afterwards</h3>
                <ul class="mt-1 list-disc pl-5 text-[14px]">
                    <li v-for="each in looked.breaks" :key="each.subject + each.what">{{ each.what }}</li>
                </ul>
            </section>
        </div>
        <template #buttons>
            <button class="button" @click="looked = undefined">
                Keep {{ block.type.split(':').at(-1) }}
            </button>
            <button class="button-main" @click="change">Change to {{ looked?.version }}</button>
        </template>
    </DialogFrame>
</template>
