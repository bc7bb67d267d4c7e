<script setup lang="ts">
import { computed } from 'vue'
import { useRouter } from 'vue-router'
import { open } from './actions'
import { guide, guided, guideSteps, setGuide } from './guide'
import { usePlatform } from './platform'

const context = usePlatform()
const router = useRouter()
const steps = computed(() => (context.platform.value ? guideSteps(context.platform.value) : []))
const next = computed(() => steps.value.findIndex((step) => !step.done))

async function find(text: string | undefined): Promise<void> {
    if (text === undefined) {
        open.findings = true
        return
    }
    await router.push(`/p/${context.id}/compose`)
    open.addAt = undefined
    open.addFilter = text
    open.add = true
}
</script>

<template>
    <aside
        v-if="guide === 'on' && guided === context.id && steps.length"
        class="sheet fixed bottom-14 left-4 z-20 w-[300px] p-3 shadow-lg"
        aria-label="First platform, step by step"
    >
        <div class="flex items-center justify-between">
            <h2 class="font-semibold">{{ next < 0 ? 'That is a platform' : 'Your first platform' }}</h2>
            <button class="text-soft hover:text-ink" aria-label="Close the guide" @click="setGuide('off')">
                ×
            </button>
        </div>
        <ol class="mt-1 text-[14px]">
            <li v-for="(step, at) in steps" :key="step.title" class="flex items-baseline gap-2 py-0.5">
                <span :class="step.done ? 'text-accent' : 'text-soft'" aria-hidden="true">{{
                    step.done ? '✓' : '○'
                }}</span>
                <span class="flex-1" :class="step.done ? 'text-soft' : ''">
                    {{ step.title }}<span class="sr-only">{{ step.done ? ', done' : ', to do' }}</span>
                    <span v-if="at === next" class="block text-[13px] text-soft">{{ step.why }}</span>
                </span>
                <button v-if="at === next" class="button !px-2 !py-0" @click="find(step.find)">
                    {{ step.find ? 'Add…' : 'Look' }}
                </button>
            </li>
        </ol>
        <div v-if="next < 0" class="mt-2 flex gap-2">
            <RouterLink :to="`/p/${context.id}/handoff`" class="button-main !py-0.5"
                >See what software gets</RouterLink
            >
            <button class="button !py-0.5" @click="setGuide('off')">Done</button>
        </div>
    </aside>
</template>
