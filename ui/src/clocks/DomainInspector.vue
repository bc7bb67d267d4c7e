<script setup lang="ts">
import { TrashIcon } from '@heroicons/vue/20/solid'
import { computed, ref, shallowRef, watch } from 'vue'
import { answer, client, type DomainDetails, type Edit, type WishPlanView } from '../api/client'
import AddressField from '../compose/AddressField.vue'
import { typedHertz } from './typedFrequency'
import { domainColour } from '../compose/domainColours'
import DialogFrame from '../frame/DialogFrame.vue'
import { usePlatform } from '../frame/platform'
import { useRevisionQuery } from '../frame/revisionQuery'
import ConsequenceList from '../findings/ConsequenceList.vue'
import { useConsequences } from '../findings/consequences'
import SettingList from './SettingList.vue'

const props = defineProps<{ name: string }>()
const context = usePlatform()
const { data: domain } = useRevisionQuery<DomainDetails>(`domain ${props.name}`, (id, at) =>
    answer(
        client.GET('/api/platforms/{id}/domains/{name}', {
            params: { path: { id, name: props.name }, query: { at } },
        }),
    ),
)
const index = computed(
    () => context.platform.value?.domains.findIndex((each) => each.name === props.name) ?? -1,
)
const others = computed(
    () =>
        context.platform.value?.domains.map((each) => each.name).filter((each) => each !== props.name) ?? [],
)

function changed(
    with_: Partial<{ clock: string; reset: string | undefined; wantedHz: number | undefined }>,
): Edit {
    const { name, clock, reset, wantedHz } = { ...domain.value, ...with_ }
    return {
        edit: 'change-domain',
        domain: { name, clock, ...(reset ? { reset } : {}), ...(wantedHz ? { wantedHz } : {}) },
    }
}

/** A change that makes new findings is looked at first. */
const asked = shallowRef<{ title: string; edit: Edit }>()
const breaks = useConsequences(context, () => asked.value?.edit)

async function rename(name: string): Promise<true | string> {
    const done = await context.tryEdit({ edit: 'rename-domain', domain: props.name, name })
    if (done === true && context.selected.value === `domain ${props.name}`) {
        context.selected.value = `domain ${name}`
    }
    return done
}

// Another frequency
const plan = shallowRef<WishPlanView>()
const problem = ref('')
watch([() => props.name, () => context.platform.value?.revision], () => {
    plan.value = undefined
    problem.value = ''
})
const requested = computed(() => (domain.value?.wantedHz ? `${String(domain.value.wantedHz / 1e6)} MHz` : ''))

async function request(text: string): Promise<true | string> {
    const hertz = typedHertz(text)
    if (hertz === undefined) {
        return 'Write a frequency, such as 12.288 MHz or 32768 Hz.'
    }
    if (!domain.value?.pll) {
        return context.tryEdit(changed({ wantedHz: hertz }))
    }
    try {
        plan.value = await answer(
            client.POST('/api/platforms/{id}/clocks/replan', {
                params: { path: { id: context.id } },
                body: { domain: props.name, hertz, tolerancePpm: 100 },
            }),
        )
        return plan.value.obstacle ?? true
    } catch (refusal) {
        return refusal instanceof Error ? refusal.message : String(refusal)
    }
}

async function use(candidate: WishPlanView['candidates'][number]): Promise<void> {
    await context.edit(candidate.edit as unknown as Edit, plan.value?.revision)
}

// Removal
const removing = ref(false)
const into = ref('')
const isUsed = computed(() => Boolean(domain.value?.inputs.length || domain.value?.buses.length))
const removal = computed<Edit | undefined>(() =>
    removing.value && (!isUsed.value || into.value)
        ? { edit: 'remove-domain', domain: props.name, ...(isUsed.value ? { into: into.value } : {}) }
        : undefined,
)
const removalBreaks = useConsequences(context, () => removal.value)

async function remove(): Promise<void> {
    const edit = removal.value
    removing.value = false
    if (edit && (await context.edit(edit))) {
        context.selected.value = undefined
    }
}

function beginRemoval(): void {
    into.value = others.value[0] ?? ''
    removing.value = true
}

const valueOf = (event: Event): string => (event.target as HTMLSelectElement).value
</script>

<template>
    <div v-if="domain" class="flex flex-col gap-4" :aria-label="`Clock domain ${name}`" role="region">
        <div>
            <div class="flex items-center gap-2">
                <span
                    class="inline-block h-5 w-1.5 rounded-sm"
                    :style="{ background: domainColour(index) }"
                    aria-hidden="true"
                ></span>
                <h2 class="min-w-0 flex-1 truncate text-xl font-semibold">{{ name }}</h2>
                <button
                    class="text-soft hover:text-error"
                    :aria-label="`Remove clock domain ${name}`"
                    title="Remove"
                    @click="beginRemoval"
                >
                    <TrashIcon class="size-5" />
                </button>
            </div>
            <p class="text-[13px] text-soft">
                Clock domain, {{ domain.frequency
                }}<template v-if="domain.pll">, made by {{ domain.pll }}</template>
            </p>
        </div>
        <section>
            <AddressField label="name" :value="name" :write="rename" />
            <label class="grid grid-cols-[96px_1fr] items-center py-0.5">
                <span>source</span>
                <select
                    class="input"
                    :value="domain.clock"
                    @change="
                        asked = {
                            title: `Clock ${name} by ${valueOf($event)}`,
                            edit: changed({ clock: valueOf($event) }),
                        }
                    "
                >
                    <option
                        v-if="!domain.clocks.some((each) => each.name === domain?.clock)"
                        :value="domain.clock"
                    >
                        {{ domain.clock }}, not there
                    </option>
                    <option v-for="each in domain.clocks" :key="each.name" :value="each.name">
                        {{ each.title }}
                    </option>
                </select>
            </label>
            <label class="grid grid-cols-[96px_1fr] items-center py-0.5">
                <span>reset</span>
                <select
                    class="input"
                    :value="domain.reset ?? ''"
                    @change="
                        asked = {
                            title: `Reset ${name} by ${valueOf($event) || 'nothing'}`,
                            edit: changed({ reset: valueOf($event) || undefined }),
                        }
                    "
                >
                    <option value="">none</option>
                    <option
                        v-if="domain.reset && !domain.resets.some((each) => each.name === domain?.reset)"
                        :value="domain.reset"
                    >
                        {{ domain.reset }}, not there
                    </option>
                    <option v-for="each in domain.resets" :key="each.name" :value="each.name">
                        {{ each.title }}
                    </option>
                </select>
            </label>
            <AddressField
                label="requested"
                :value="requested"
                :placeholder="domain.pll ? '12.288 MHz, sets the PLL again' : '12.288 MHz'"
                :write="request"
            />
            <SettingList
                v-if="plan && !plan.obstacle"
                :candidates="plan.candidates"
                label="Settings for the requested frequency"
                @use="use"
            />
        </section>
        <section aria-label="What it clocks">
            <h3 class="heading">What it clocks</h3>
            <p v-if="!isUsed" class="text-soft">Nothing yet.</p>
            <p v-for="bus in domain.buses" :key="bus" class="grid grid-cols-[1fr_auto] py-0.5 text-[14px]">
                <button
                    class="text-left font-semibold hover:text-accent"
                    @click="context.selected.value = `bus ${bus}`"
                >
                    {{ bus }}
                </button>
                <span class="text-soft">bus</span>
            </p>
            <p
                v-for="input in domain.inputs"
                :key="input.block"
                class="grid grid-cols-[1fr_auto] py-0.5 text-[14px]"
            >
                <button
                    class="text-left font-mono text-[13px] font-semibold hover:text-accent"
                    @click="context.selected.value = input.block"
                >
                    {{ input.block }}
                </button>
                <span class="font-mono text-[13px] text-soft">{{ input.ports.join(', ') }}</span>
            </p>
        </section>
        <DialogFrame
            :open="asked !== undefined"
            :title="`${asked?.title ?? ''}?`"
            :width="600"
            @close="asked = undefined"
        >
            <p class="mt-1 text-soft">
                {{ domain.inputs.length }}
                {{ domain.inputs.length === 1 ? 'block follows' : 'blocks follow' }}
                with every rate that is derived from the clock.
            </p>
            <ConsequenceList :consequences="breaks" />
            <template #buttons>
                <button class="button" @click="asked = undefined">Cancel</button>
                <button
                    v-if="breaks"
                    class="button-main"
                    @click="
                        async () => {
                            const edit = asked?.edit
                            asked = undefined
                            if (edit) {
                                await context.edit(edit)
                            }
                        }
                    "
                >
                    Change
                </button>
            </template>
        </DialogFrame>
        <DialogFrame
            :open="removing"
            :title="`Remove clock domain ${name}?`"
            :width="600"
            @close="removing = false"
        >
            <template v-if="isUsed">
                <p class="mt-1">
                    {{ domain.inputs.length }} {{ domain.inputs.length === 1 ? 'block' : 'blocks' }} and
                    {{ domain.buses.length }} {{ domain.buses.length === 1 ? 'bus' : 'buses' }} are in it.
                </p>
                <label v-if="others.length" class="mt-2 flex items-center gap-2">
                    <span>They go to</span>
                    <select v-model="into" class="input">
                        <option v-for="other in others" :key="other">{{ other }}</option>
                    </select>
                </label>
                <p v-else class="mt-2 text-error">
                    There is no other domain for them. Plan another clock first, or remove the blocks.
                </p>
            </template>
            <p v-else class="mt-1 text-soft">Nothing is in it.</p>
            <ConsequenceList :consequences="removalBreaks" />
            <template #buttons>
                <button class="button" @click="removing = false">Keep</button>
                <button class="button-main" :disabled="!removal || !removalBreaks" @click="remove">
                    Remove
                </button>
            </template>
        </DialogFrame>
    </div>
    <p v-else class="text-soft">Reading the clock domain…</p>
</template>
