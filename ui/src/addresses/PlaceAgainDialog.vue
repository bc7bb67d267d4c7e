<script setup lang="ts">
import DialogFrame from '../frame/DialogFrame.vue'
import { computed, ref, watch } from 'vue'
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

const isDone = computed(
    () =>
        plan.value?.moves.length === 0 && plan.value.homeless.length === 0 && plan.value.windows.length === 0,
)

async function widen(name: string, bits: number): Promise<void> {
    const bus = context.platform.value?.buses.find((each) => each.name === name)
    if (bus) {
        const { protocol, dataWidth, domain, arbitration } = bus
        await context.edit({
            edit: 'change-bus',
            bus: { name, protocol, dataWidth, addressWidth: bits, domain, arbitration },
        } as unknown as Edit)
    }
}

async function apply(): Promise<void> {
    if (plan.value && (await context.edit(plan.value.edit as unknown as Edit, plan.value.revision))) {
        emit('close')
    }
}
</script>

<template>
    <DialogFrame :open="open" title="Place again" :width="620" @close="emit('close')">
        <p class="mt-1 text-soft">
            Memories from the bottom, registers from the middle, larger ranges first, each aligned to its size
            and so that few address bits tell them apart. Held ranges and reserved addresses stay as they are.
        </p>
        <p v-if="!plan" class="mt-4 text-soft">Working it out…</p>
        <p v-else-if="isDone" class="mt-4">Every range is where it would be placed. Nothing moves.</p>
        <table v-else class="mt-4 w-full font-mono text-[13px]">
            <tbody>
                <tr v-for="window in plan.windows" :key="window.bridge" class="border-b border-line">
                    <td class="py-1 font-sans text-[15px] font-semibold">window of {{ window.bridge }}</td>
                    <td>{{ window.from }}</td>
                    <td aria-label="to">→</td>
                    <td>{{ window.to }}</td>
                </tr>
                <tr v-for="move in plan.moves" :key="move.bus + move.label" class="border-b border-line">
                    <td class="py-1 font-sans text-[15px] font-semibold">{{ move.label }}</td>
                    <td>{{ move.from ?? 'no address' }}</td>
                    <td aria-label="to">→</td>
                    <td>{{ move.to }}</td>
                </tr>
            </tbody>
        </table>
        <div v-for="left in plan?.homeless" :key="left.bus + left.label" class="mt-3">
            <p class="text-error">{{ left.why }}.</p>
            <p class="text-soft">
                Let what is in the way go, or put {{ left.label }} on another bus<template v-if="left.bits"
                    >, or
                    <button class="text-accent underline" @click="widen(left.bus, left.bits)">
                        give {{ left.bus }} {{ left.bits }} address bits
                    </button></template
                >.
            </p>
        </div>
        <template #buttons>
            <button class="button" @click="emit('close')">Close</button>
            <button v-if="plan?.moves.length || plan?.windows.length" class="button-main" @click="apply">
                {{ plan.moves.length === 1 ? 'Move 1 range' : `Move ${plan.moves.length} ranges` }}
            </button>
        </template>
    </DialogFrame>
</template>
