<script setup lang="ts">
import { computed, ref } from 'vue'
import ProcessorChoice from '../boot/ProcessorChoice.vue'
import { usePrograms } from '../boot/programs'
import { usePlatform } from '../frame/platform'
import { sentence } from '../frame/sentence'
import { useBench } from './bench'
import BenchConsole from './BenchConsole.vue'
import BesideChoice from './BesideChoice.vue'
import BoardPicture from './BoardPicture.vue'
import MemoryNotices from './MemoryNotices.vue'
import RegisterTable from './RegisterTable.vue'
import StreamPlot from './StreamPlot.vue'
import AroundPanel from './AroundPanel.vue'
import WorldPanel from './WorldPanel.vue'

const context = usePlatform()
const platform = computed(() => context.platform.value)
const revision = computed(() => context.platform.value?.revision)
/** Blocks whose model is compiled from HDL of one's own, which takes some seconds the first time. */
const own = computed(() =>
    (platform.value?.blocks ?? [])
        .filter((block) => !block.type.startsWith('polymetron:'))
        .map((block) => block.name),
)
const screen = ref<InstanceType<typeof BenchConsole>>()
const { programs, program, chosen } = usePrograms(context.id)
const {
    bench,
    state,
    busy,
    cancel,
    load,
    act,
    type,
    move,
    setVoltage,
    setSignal,
    setSamples,
    setReception,
    setActing,
} = useBench(context.id, revision, (text, fresh) => screen.value?.say(text, fresh))
/** The processor that was chosen; the bench finds the one that a program is for until there is a choice. */
const processor = ref<string>()
const processors = computed(() => bench.value?.processors ?? [])
/** The processor that the program runs on, as far as that is known. */
const first = computed(() => processor.value ?? bench.value?.processor ?? processors.value[0])
/** Programs of further processors by the names of those. */
const beside = ref<Record<string, string>>({})
/** Whether what is done in memory is looked at from the next load on. */
const checked = ref(false)
const runs = computed(() =>
    bench.value ? [bench.value.processor, ...bench.value.beside].filter((name) => name).join(', ') : '',
)
const othersStand = computed(() => (bench.value?.beside.length ?? 0) + 1 < processors.value.length)
const running = computed(() => state.value?.mode === 'running')

async function begin(): Promise<void> {
    if (program.value) {
        const others = Object.entries(beside.value)
            .filter(([name]) => name !== first.value)
            .map(([name, id]) => ({ processor: name, program: id }))
        // Beside others it has to be said which one it is for.
        const runsOn = others.length ? first.value : processor.value
        if (await load(program.value.id, runsOn, others, checked.value)) {
            await act('run')
        }
    }
}

const time = computed(() => {
    const seconds = state.value?.seconds ?? 0
    return `${seconds.toFixed(seconds < 100 ? 3 : 1)} s`
})
</script>

<template>
    <div class="flex h-full flex-col">
        <div class="flex flex-wrap items-center gap-3 border-b border-line px-5 py-2">
            <label v-if="programs?.length" class="flex items-center gap-2">
                <span class="text-soft">Program</span>
                <select
                    class="input !py-1"
                    :value="program?.id"
                    @change="chosen = ($event.target as HTMLSelectElement).value"
                >
                    <option v-for="each in programs" :key="each.id" :value="each.id">{{ each.name }}</option>
                </select>
            </label>
            <ProcessorChoice
                v-if="program"
                :processors="processors"
                :processor="first"
                @choose="processor = $event"
            />
            <BesideChoice
                v-if="program && processors.length > 1"
                :processors="processors.filter((each) => each !== first)"
                :programs="programs ?? []"
                :chosen="beside"
                @choose="beside = $event"
            />
            <label
                v-if="program"
                class="flex items-center gap-1.5"
                title="Says what is read before it was written, what blocks write over instructions or the stack, and what they read without a FENCE before. The board runs slower."
            >
                <input v-model="checked" type="checkbox" class="size-4" />
                <span class="text-soft">Check memory</span>
            </label>
            <button
                :class="bench?.loaded ? 'button' : 'button-main'"
                :disabled="!program || busy"
                @click="begin"
            >
                {{ bench?.loaded ? 'Load again and run' : 'Load and run' }}
            </button>
            <span v-if="busy" class="text-[13px] text-soft" role="status">
                {{ own.length ? `Loading; the HDL of ${own.join(', ')} is compiled first…` : 'Loading…' }}
            </span>
            <button v-if="cancel && own.length" class="button !py-0.5" @click="cancel()">Cancel</button>
            <template v-if="bench?.loaded">
                <span class="h-5 border-l border-line"></span>
                <button v-if="running" class="button-main" @click="act('pause')">Pause</button>
                <button v-else class="button-main" @click="act('run')">Run</button>
                <button class="button" @click="act('step')">Step</button>
                <button class="button" @click="act('reset')">Reset</button>
            </template>
            <span class="flex-1"></span>
            <p
                v-if="bench?.loaded && state"
                class="flex flex-wrap gap-x-5 text-[13px] text-soft"
                role="group"
                aria-label="State of the bench"
            >
                <span>{{
                    running ? (state.waiting ? 'running, waits for an interrupt' : 'running') : 'paused'
                }}</span>
                <span v-if="processors.length > 1">
                    <span class="font-mono text-ink">{{ runs }}</span>
                    {{ othersStand ? 'runs, others have no program' : 'run' }}
                </span>
                <span
                    >board time <span class="font-mono text-ink">{{ time }}</span></span
                >
                <span v-if="running">
                    speed
                    <span class="inline-block min-w-[5ch] text-right font-mono text-ink"
                        >{{ Math.round(state.speed * 100) }} %</span
                    >
                </span>
                <span v-for="hart in state.harts" :key="hart.label" :title="hart.place ?? undefined">
                    {{ state.harts.length > 1 ? `${hart.label} pc` : 'pc' }}
                    <span class="font-mono text-ink">{{ hart.pc }}</span>
                    <template v-if="!running && hart.place"> {{ hart.place }}</template>
                </span>
                <span v-if="state.lastTrap">last trap: {{ state.lastTrap }}</span>
            </p>
        </div>
        <p v-if="bench?.stale" class="flex items-center gap-3 bg-warn-soft px-5 py-1.5 text-warn">
            Stale: the bench runs revision {{ bench.revision }}, and what software sees of the platform has
            changed since. Build the program for the new hand-off, then load it again.
        </p>
        <p v-else-if="bench?.mismatch" class="bg-warn-soft px-5 py-1.5 text-warn">
            {{ sentence(bench.mismatch) }} Build it with the newest hand-off if it does not do what it should.
        </p>
        <p v-if="state?.stopped" role="alert" class="bg-error-soft px-5 py-1.5 text-error">
            Stopped: {{ sentence(state.stopped) }} Reset starts it again.
        </p>
        <div v-if="programs && !program" class="m-auto max-w-md text-center">
            <p class="text-lg font-semibold">There is no program yet</p>
            <p class="mt-1 text-soft">The bench runs a program on the simulated board. Add one under Boot.</p>
            <RouterLink :to="`/p/${context.id}/boot`" class="button-main mt-4">Go to Boot</RouterLink>
        </div>
        <div
            v-else
            class="grid min-h-0 flex-1 grid-cols-[minmax(560px,1.25fr)_minmax(420px,1fr)] grid-rows-[minmax(0,1fr)] gap-5 overflow-x-auto px-5 py-4 max-[1100px]:grid-cols-1 max-[1100px]:grid-rows-none max-[1100px]:overflow-y-auto"
        >
            <div class="relative flex min-h-0 flex-col gap-4 overflow-y-auto">
                <BoardPicture
                    v-if="platform"
                    :title="platform.boardTitle"
                    :parts="platform.parts"
                    :levels="state?.parts ?? []"
                    :loaded="bench?.loaded ?? false"
                    :move="move"
                />
                <BenchConsole ref="screen" :loaded="bench?.loaded ?? false" @type="type" />
            </div>
            <div class="relative flex min-h-0 flex-col gap-4 overflow-y-auto">
                <MemoryNotices v-if="state?.notices" :notices="state.notices" />
                <WorldPanel
                    v-if="platform && state"
                    :parts="platform.parts"
                    :state="state"
                    :set-voltage="setVoltage"
                    :set-signal="setSignal"
                    :set-samples="setSamples"
                    :set-reception="setReception"
                />
                <AroundPanel v-if="state" :around="state.around" :set-acting="setActing" />
                <StreamPlot
                    v-if="bench?.loaded && bench.streams.length"
                    :id="context.id"
                    :streams="bench.streams"
                    :running="running"
                />
                <RegisterTable
                    v-if="platform && bench?.loaded"
                    class="min-h-[300px] flex-1 shrink-0"
                    :blocks="bench.blocks"
                    :passive="bench.passive"
                    :verilog="bench.verilog"
                    :platform="platform"
                    :running="running"
                    :cycles="state?.cycles ?? 0"
                />
                <div v-else class="sheet p-6 text-soft">
                    Registers of the blocks appear here by name once a program is loaded. They can be read and
                    written while the board runs.
                </div>
            </div>
        </div>
    </div>
</template>
