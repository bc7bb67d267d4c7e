<script setup lang="ts">
import DialogFrame from '../frame/DialogFrame.vue'
import { computed, ref, watch } from 'vue'
import { answer, client, type Edit } from '../api/client'
import ConsequenceList from '../findings/ConsequenceList.vue'
import { useConsequences } from '../findings/consequences'
import { tellProblem } from '../frame/notices'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const context = usePlatform()
type Placement = Awaited<ReturnType<typeof ask>>
const plan = ref<Placement>()

/** Ranges that are not to move. */
const staying = ref<string[]>([])
const fewest = ref(false)
/** Moves that were proposed and unticked, as they were shown. */
const unticked = ref<{ ref: string; label: string; from?: string | null }[]>([])

function ask() {
    return answer(
        client.GET('/api/platforms/{id}/placement', {
            params: {
                path: { id: context.id },
                query: { fewest: fewest.value, stay: staying.value },
            },
        }),
    )
}

function toggle(move: { ref: string; label: string; from?: string | null }): void {
    if (staying.value.includes(move.ref)) {
        staying.value = staying.value.filter((each) => each !== move.ref)
        unticked.value = unticked.value.filter((each) => each.ref !== move.ref)
    } else {
        staying.value = [...staying.value, move.ref]
        unticked.value = [...unticked.value, move]
    }
}

watch(
    () => props.open,
    () => {
        staying.value = []
        unticked.value = []
        fewest.value = false
    },
)

let asked = 0
watch(
    // What was worked out for an older revision says nothing about this one.
    () => [props.open, context.platform.value?.revision, staying.value, fewest.value] as const,
    async ([opened], before) => {
        const mine = ++asked
        if (!opened || before?.[1] !== context.platform.value?.revision) {
            plan.value = undefined
        }
        if (opened) {
            try {
                const answered = await ask()
                if (mine === asked) {
                    plan.value = answered
                }
            } catch (error) {
                tellProblem(error)
                emit('close')
            }
        }
    },
)

const breaks = useConsequences(context, () => plan.value?.edit as unknown as Edit | undefined)
const isDone = computed(
    () =>
        unticked.value.length === 0 &&
        plan.value?.moves.length === 0 &&
        plan.value.unplaceable.length === 0 &&
        plan.value.windows.length === 0,
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
    <DialogFrame :open="open" title="Place automatically" :width="620" @close="emit('close')">
        <p class="mt-1 text-soft">
            Locked ranges and reserved addresses stay as they are. Untick a range to leave it where it is.
        </p>
        <fieldset class="mt-2 flex gap-6">
            <legend class="sr-only">How to place</legend>
            <label class="flex items-center gap-2">
                <input v-model="fewest" type="radio" :value="false" name="placement" />
                <span title="Memories from the bottom, registers from the middle, larger ranges first"
                    >compact, with few address bits to decode</span
                >
            </label>
            <label class="flex items-center gap-2">
                <input v-model="fewest" type="radio" :value="true" name="placement" />
                <span>fewest moves</span>
            </label>
        </fieldset>
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
                <tr v-for="move in plan.moves" :key="move.ref" class="border-b border-line">
                    <td class="py-1 font-sans text-[15px] font-semibold">
                        <label class="flex items-center gap-2">
                            <input
                                type="checkbox"
                                checked
                                :aria-label="`Move ${move.label}`"
                                @change="toggle(move)"
                            />
                            {{ move.label }}
                        </label>
                    </td>
                    <td>{{ move.from ?? 'no address' }}</td>
                    <td aria-label="to">→</td>
                    <td>{{ move.to }}</td>
                </tr>
                <tr v-for="move in unticked" :key="move.ref" class="border-b border-line text-soft">
                    <td class="py-1 font-sans text-[15px]">
                        <label class="flex items-center gap-2">
                            <input
                                type="checkbox"
                                :aria-label="`Move ${move.label}`"
                                @change="toggle(move)"
                            />
                            {{ move.label }}
                        </label>
                    </td>
                    <td>{{ move.from ?? 'no address' }}</td>
                    <td colspan="2" class="font-sans">stays</td>
                </tr>
                <tr v-for="line in plan.following" :key="line" class="border-b border-line">
                    <td colspan="4" class="py-1 font-sans text-[14px] text-soft">also: {{ line }}</td>
                </tr>
            </tbody>
        </table>
        <p
            v-if="plan && !isDone && !plan.moves.length && !plan.windows.length && !plan.unplaceable.length"
            class="mt-3"
        >
            Nothing else moves.
        </p>
        <ConsequenceList :consequences="breaks" />
        <div v-for="left in plan?.unplaceable" :key="left.bus + left.label" class="mt-3">
            <p class="text-error">{{ left.why }}.</p>
            <p class="text-soft">
                Move what is in the way, or put {{ left.label }} on another bus<template v-if="left.bits"
                    >, or
                    <button class="text-accent underline" @click="widen(left.bus, left.bits)">
                        give {{ left.bus }} {{ left.bits }} address bits
                    </button></template
                >.
            </p>
        </div>
        <template #buttons>
            <button class="button" @click="emit('close')">Close</button>
            <button
                v-if="(breaks || !plan?.edit) && (plan?.moves.length || plan?.windows.length)"
                class="button-main"
                @click="apply"
            >
                {{ plan.moves.length === 1 ? 'Move 1 range' : `Move ${plan.moves.length} ranges` }}
            </button>
        </template>
    </DialogFrame>
</template>
