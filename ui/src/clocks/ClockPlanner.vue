<script setup lang="ts">
import { computed, nextTick, reactive, ref, shallowRef, useTemplateRef, watch } from 'vue'
import { answer, client, type ClocksView, type WishPlanView } from '../api/client'
import { tellProblem } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import SettingList from './SettingList.vue'
import { clockName, listedFrequencies, typedHertz, typedPpm } from './typedFrequency'

const props = defineProps<{ plls: ClocksView['plls']; domains: ClocksView['tree'] }>()
const context = usePlatform()

interface Wish {
    name: string
    frequency: string
    tolerance: string
}

const wishes = reactive<Wish[]>([{ name: '', frequency: '', tolerance: '100 ppm' }])
const source = ref('')
const MOST = 8
const found = useTemplateRef<HTMLElement>('found')
const plan = shallowRef<WishPlanView>()
const problem = ref('')
const from = computed(() => source.value || props.domains[0]?.name)
const complete = computed(() =>
    wishes.every(
        (wish) =>
            listedFrequencies(wish.frequency).length > 0 &&
            listedFrequencies(wish.frequency).every((each) => typedHertz(each) !== undefined) &&
            typedPpm(wish.tolerance) !== undefined,
    ),
)

/** The names that the clocks get: those that are typed, for others one made of the frequency. */
const names = computed(() => {
    const taken = new Set([...props.domains.map((each) => each.name), ...wishes.map((wish) => wish.name)])
    return wishes.map((wish) => {
        const hertz = typedHertz(wish.frequency)
        const name = wish.name || (hertz === undefined ? '' : clockName(hertz, taken))
        taken.add(name)
        return name
    })
})

/** A list in one field becomes a clock for each of its frequencies. */
function spread(at: number): void {
    const wish = wishes[at]
    const each = wish ? listedFrequencies(wish.frequency) : []
    if (wish && each.length > 1 && wishes.length + each.length - 1 <= MOST) {
        const of = (frequency: string): Wish => ({ ...wish, name: '', frequency })
        wishes.splice(at, 1, ...each.map(of))
    }
}

// What was found belongs to the request.
watch([wishes, source, () => context.platform.value?.revision], () => (plan.value = undefined))

async function find(): Promise<void> {
    problem.value = ''
    wishes.forEach((_, at) => {
        spread(at)
    })
    await nextTick()
    if (wishes.some((wish) => typedHertz(wish.frequency) === undefined)) {
        problem.value = `No more than ${String(MOST)} clocks are looked for at once.`
        return
    }
    try {
        plan.value = await answer(
            client.POST('/api/platforms/{id}/clocks/plan', {
                params: { path: { id: context.id } },
                body: {
                    source: from.value ?? '',
                    wishes: wishes.map((wish, at) => ({
                        name: names.value[at] ?? wish.name,
                        hertz: typedHertz(wish.frequency) ?? 0,
                        tolerancePpm: typedPpm(wish.tolerance) ?? 0,
                    })),
                },
            }),
        )
        await nextTick()
        // What was found is used with Enter.
        found.value?.querySelector('button')?.focus()
    } catch (refusal) {
        problem.value = refusal instanceof Error ? refusal.message : ''
        if (!problem.value) {
            tellProblem(refusal)
        }
    }
}

async function use(candidate: WishPlanView['candidates'][number]): Promise<void> {
    if (await context.edit(candidate.edit as { edit: string }, plan.value?.revision)) {
        wishes.splice(0, wishes.length, { name: '', frequency: '', tolerance: '100 ppm' })
    }
}
</script>

<template>
    <section aria-label="More clocks">
        <h2 class="heading">More clocks</h2>
        <p v-if="!plls" class="mt-2 text-soft">The device has no PLL.</p>
        <template v-else>
            <p class="mt-1 text-[13px] text-soft">
                PLLs free: {{ plls.free }} of {{ plls.count }}, with {{ plls.outputs }} outputs each. Input
                {{ plls.input }}, phase detector {{ plls.detector }}, oscillator inside {{ plls.vco }},
                multiplier {{ plls.multiplier }}.
            </p>
            <p v-if="domains.length === 0" class="mt-2 text-soft">
                There is no clock domain yet to make others from; the wiring plan in Compose proposes one.
            </p>
            <form v-else class="mt-2" @submit.prevent="find">
                <label class="flex items-center gap-2">
                    <span class="text-soft">from domain</span>
                    <select
                        class="input"
                        :value="from"
                        @change="source = ($event.target as HTMLSelectElement).value"
                    >
                        <option v-for="domain in domains" :key="domain.name" :value="domain.name">
                            {{ domain.name }}, {{ domain.actual }}
                        </option>
                    </select>
                </label>
                <div
                    v-for="(wish, at) in wishes"
                    :key="at"
                    class="mt-2 grid grid-cols-[1fr_116px_14px_90px_20px] items-center gap-2"
                >
                    <input
                        v-model="wish.name"
                        class="input font-mono"
                        :aria-label="`Name of clock ${at + 1}`"
                        :placeholder="names[at] || 'name, such as audio'"
                    />
                    <input
                        v-model="wish.frequency"
                        class="input text-right font-mono"
                        inputmode="decimal"
                        :class="
                            listedFrequencies(wish.frequency).some((each) => !typedHertz(each))
                                ? '!border-error'
                                : ''
                        "
                        :aria-label="`Frequency of clock ${at + 1}`"
                        title="Such as 12.288 MHz, 32768 Hz or 50k; without a unit it is MHz. Several at once with commas: 100, 25, 12.5"
                        placeholder="12.288 MHz"
                        @change="spread(at)"
                    />
                    <span class="text-soft">±</span>
                    <input
                        v-model="wish.tolerance"
                        class="input text-right font-mono"
                        inputmode="decimal"
                        :class="typedPpm(wish.tolerance) === undefined ? '!border-error' : ''"
                        :aria-label="`Tolerance of clock ${at + 1}`"
                        title="Such as 100 ppm or 0.5 %; without a unit it is ppm"
                    />
                    <button
                        v-if="wishes.length > 1"
                        type="button"
                        class="text-soft hover:text-error"
                        :aria-label="`Remove clock ${at + 1}`"
                        @click="wishes.splice(at, 1)"
                    >
                        ×
                    </button>
                </div>
                <div class="mt-2 flex gap-2">
                    <button
                        type="button"
                        class="button"
                        :disabled="wishes.length >= MOST"
                        @click="wishes.push({ name: '', frequency: '', tolerance: '100 ppm' })"
                    >
                        Add clock
                    </button>
                    <button class="button-main" :disabled="!complete">Find settings</button>
                </div>
            </form>
            <p v-if="problem" class="mt-2 text-error" role="alert">{{ problem }}</p>
            <p v-if="plan?.obstacle" class="mt-2 text-error" role="alert">{{ plan.obstacle }}</p>
            <div v-if="plan && !plan.obstacle" ref="found">
                <SettingList :candidates="plan.candidates" label="Settings found" @use="use" />
            </div>
        </template>
    </section>
</template>
