<script setup lang="ts">
import DialogFrame from '../frame/DialogFrame.vue'
import { ref, watch } from 'vue'
import { answer, client, type Edit } from '../api/client'
import { tellProblem } from '../frame/notices'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const context = usePlatform()
type Placement = Awaited<ReturnType<typeof ask>>
const plan = ref<Placement>()

function ask() {
    return answer(client.GET('/api/platforms/{id}/placement', { params: { path: { id: context.id } } }))
}

watch(
    // What was worked out for an older revision says nothing about this one.
    () => [props.open, context.platform.value?.revision] as const,
    async ([opened]) => {
        plan.value = undefined
        if (opened) {
            try {
                plan.value = await ask()
            } catch (error) {
                tellProblem(error)
                emit('close')
            }
        }
    },
)

async function apply(): Promise<void> {
    if (plan.value && (await context.edit(plan.value.edit as unknown as Edit, plan.value.revision))) {
        emit('close')
    }
}
</script>

<template>
    <DialogFrame :open="open" title="Place again" :width="620" @close="emit('close')">
        <p class="mt-1 text-soft">
            Memories from the bottom, registers from the middle, larger ranges first, each aligned to its
            size. Held ranges stay where they are.
        </p>
        <p v-if="!plan" class="mt-4 text-soft">Working it out…</p>
        <p v-else-if="plan.moves.length === 0 && plan.homeless.length === 0" class="mt-4">
            Every range is where it would be placed. Nothing moves.
        </p>
        <table v-else class="mt-4 w-full font-mono text-[13px]">
            <tbody>
                <tr v-for="move in plan.moves" :key="move.label" class="border-b border-line">
                    <td class="py-1 font-sans text-[15px] font-semibold">{{ move.label }}</td>
                    <td>{{ move.from ?? 'no address' }}</td>
                    <td aria-label="to">→</td>
                    <td>{{ move.to }}</td>
                </tr>
            </tbody>
        </table>
        <p v-if="plan?.homeless.length" class="mt-3 text-error">
            No gap is large enough for {{ plan.homeless.join(', ') }}. Let a held range go, or give the bus
            more address bits.
        </p>
        <template #buttons>
            <button class="button" @click="emit('close')">Close</button>
            <button v-if="plan?.moves.length" class="button-main" @click="apply">
                {{ plan.moves.length === 1 ? 'Move 1 range' : `Move ${plan.moves.length} ranges` }}
            </button>
        </template>
    </DialogFrame>
</template>
