<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client, Refusal, upload } from '../api/client'
import { tell, tellProblem } from '../frame/notices'
import LeaveGuard from '../frame/LeaveGuard.vue'
import HomeFrame from '../platforms/HomeFrame.vue'
import { type Board, type BoardPart, pinsOf } from './board'
import PartForm from './PartForm.vue'
import PinBanks from './PinBanks.vue'
import { vTyped } from '../frame/typedText'

interface Problem {
    at: string
    what: string
}

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const from = String(route.params.identity)
const copying = route.params.how === 'copy'
const { data: library } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const { data: devices } = useQuery({
    queryKey: ['devices'],
    queryFn: () => answer(client.GET('/api/library/devices')),
})
const board = ref<Board>()
const problems = ref<Problem[]>([])
const failure = ref<string>()
const saved = ref('')
/** A copy that has not been saved yet. */
const isNew = ref(copying)
const text = computed(() => JSON.stringify(board.value))
const changed = computed(() => board.value !== undefined && text.value !== saved.value)
const device = computed(() => devices.value?.find((each) => each.name === board.value?.device))
const standards = computed(() => device.value?.standards ?? [])
const pins = computed(() => (board.value ? pinsOf(board.value) : new Map<string, string>()))
const kinds = computed(() =>
    [
        ...new Set(library.value?.types.flatMap((type) => type.outward.flatMap((each) => each.partKinds))),
    ].sort(),
)

async function read(): Promise<void> {
    try {
        const response = await fetch(`/api/library/boards/${encodeURIComponent(from)}/document`)
        if (!response.ok) {
            throw new Refusal(response.status, 'Not there', 'The library has no such board.')
        }
        const document = (await response.json()) as Board
        if (copying) {
            const [, , name = 'board'] = document.identity.split(':')
            document.identity = `own:boards:${name}:1.0`
            document.title = `Copy of ${document.title}`.slice(0, 80)
            if (typeof route.query.device === 'string') {
                document.device = route.query.device
            }
        }
        board.value = document
        saved.value = JSON.stringify(document)
    } catch (problem) {
        failure.value = problem instanceof Error ? problem.message : String(problem)
    }
}
void read()

let timer: number | undefined
watch(text, () => {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void check(), 300)
})

async function check(): Promise<void> {
    const checked = text.value
    try {
        const found = await upload<Problem[]>('/api/library/boards/check', new Blob([checked]))
        if (checked === text.value) {
            problems.value = found
        }
    } catch (problem) {
        if (checked === text.value && problem instanceof Refusal) {
            problems.value = [{ at: '', what: problem.message.replace(/^board, line \d+, /, '') }]
        }
    }
}

/** What is wrong at a place of the document, or below it. */
function wrong(at: string): string {
    return problems.value
        .filter((each) => each.at === at || each.at.startsWith(`${at}/`))
        .map((each) => each.what)
        .join('; ')
}

async function save(): Promise<void> {
    if (!board.value) {
        return
    }
    try {
        const kept = await upload<{ identity: string }>('/api/library/boards', new Blob([text.value]))
        saved.value = text.value
        isNew.value = false
        await queries.invalidateQueries({ queryKey: ['library'] })
        await queries.invalidateQueries({ queryKey: ['board', kept.identity] })
        const platform = route.query.platform
        if (typeof platform === 'string') {
            tell('done', 'Board saved', 'Change the board of the platform to use it.')
            await router.push(`/p/${encodeURIComponent(platform)}/fit`)
        } else {
            tell('done', 'Board saved', 'It is offered for new platforms.')
            await router.push(`/boards/${kept.identity}`)
        }
    } catch (problem) {
        tellProblem(problem)
    }
}

function addClock(): void {
    board.value?.clocks?.push({
        name: 'clock',
        title: 'oscillator',
        frequencyHz: 100000000,
        pin: '',
        standard: standards.value[0] ?? '',
    })
}

function addReset(): void {
    board.value?.resets?.push({
        name: 'reset',
        title: 'reset button',
        activeLow: true,
        pin: '',
        standard: standards.value[0] ?? '',
    })
}

function addPart(): void {
    const part: BoardPart = {
        name: `part_${String((board.value?.parts?.length ?? 0) + 1)}`,
        kind: kinds.value[0] ?? 'header',
        title: 'new part',
        signals: [{ name: 'value', direction: 'out', pins: [], standard: standards.value[0] ?? '' }],
        drivers: [],
    }
    board.value?.parts?.push(part)
}

function identityPart(index: number): string {
    return board.value?.identity.split(':')[index] ?? ''
}

function setIdentity(index: number, value: string): void {
    if (board.value) {
        const parts = board.value.identity.split(':')
        parts[index] = value.trim()
        board.value.identity = parts.join(':')
    }
}

const valueOf = (event: Event): string => (event.target as HTMLInputElement).value
</script>

<template>
    <HomeFrame wide>
        <div v-if="failure" class="mx-auto mt-24 max-w-lg text-center">
            <h1 class="text-xl font-semibold">This board cannot be changed</h1>
            <p class="mt-2">{{ failure }}</p>
            <RouterLink to="/boards" class="button-main mt-4">All boards</RouterLink>
        </div>
        <div v-else-if="board" class="flex h-full">
            <form class="min-w-0 flex-1 overflow-auto px-6 py-4" @submit.prevent="save">
                <div class="flex items-start justify-between gap-4">
                    <h1 class="text-2xl font-semibold">{{ copying ? 'New board' : 'Change board' }}</h1>
                    <div class="flex gap-2">
                        <RouterLink :to="`/boards/${from}`" class="button">Cancel</RouterLink>
                        <button class="button-main" :disabled="problems.length > 0 || !(changed || isNew)">
                            Save
                        </button>
                    </div>
                </div>
                <p v-if="problems.length" class="mt-1 text-error" role="status">
                    {{ problems.length === 1 ? 'One thing is' : `${problems.length} things are` }} to be
                    settled first: {{ problems[0]?.what }}
                </p>
                <p v-else class="mt-1 text-soft" role="status">Nothing is wrong with it.</p>
                <div class="mt-3 grid grid-cols-[100px_1fr_100px_1fr] items-center gap-x-3 gap-y-2">
                    <label for="title">Title</label>
                    <input id="title" v-model="board.title" class="input" maxlength="80" />
                    <label for="device">Device</label>
                    <select id="device" v-model="board.device" class="input">
                        <option v-for="each in devices" :key="each.name" :value="each.name">
                            {{ each.name }}, {{ each.packageName }}
                        </option>
                    </select>
                    <label for="name">Name</label>
                    <span class="flex items-center gap-2">
                        <input
                            id="name"
                            v-typed="identityPart(2)"
                            class="input w-44 font-mono"
                            :disabled="!copying"
                            @change="setIdentity(2, valueOf($event))"
                        />
                        version
                        <input
                            v-typed="identityPart(3)"
                            class="input w-16 font-mono"
                            aria-label="Version"
                            @change="setIdentity(3, valueOf($event))"
                        />
                    </span>
                    <label for="summary">Summary</label>
                    <input id="summary" v-model="board.summary" class="input" maxlength="300" />
                </div>
                <p class="mt-1 font-mono text-[12px] text-soft">{{ board.identity }}</p>

                <h2 class="heading mt-5 flex justify-between">
                    Clocks<button type="button" class="text-accent normal-case" @click="addClock">
                        Add a clock
                    </button>
                </h2>
                <div
                    v-for="(clock, at) in board.clocks"
                    :key="at"
                    class="grid grid-cols-[150px_1fr_166px_70px_110px_24px] items-center gap-2 py-1"
                >
                    <input v-model="clock.name" class="input font-mono" aria-label="Name of the clock" />
                    <input v-model="clock.title" class="input" aria-label="Title of the clock" />
                    <span class="flex items-center gap-1"
                        ><input
                            v-model.number="clock.frequencyHz"
                            type="number"
                            class="input w-28 font-mono"
                            aria-label="Frequency in hertz"
                        />
                        Hz</span
                    >
                    <input v-model="clock.pin" class="input font-mono" aria-label="Pin of the clock" />
                    <select v-model="clock.standard" class="input" aria-label="I/O standard of the clock">
                        <option v-for="each in standards" :key="each">{{ each }}</option>
                    </select>
                    <button
                        type="button"
                        class="text-soft hover:text-error"
                        :aria-label="`Remove ${clock.name}`"
                        @click="board.clocks?.splice(at, 1)"
                    >
                        ×
                    </button>
                    <p v-if="wrong(`/clocks/${at}`)" class="col-span-6 text-[13px] text-error">
                        {{ wrong(`/clocks/${at}`) }}
                    </p>
                </div>

                <h2 class="heading mt-5 flex justify-between">
                    Resets<button type="button" class="text-accent normal-case" @click="addReset">
                        Add a reset
                    </button>
                </h2>
                <div
                    v-for="(reset, at) in board.resets"
                    :key="at"
                    class="grid grid-cols-[150px_1fr_166px_70px_110px_24px] items-center gap-2 py-1"
                >
                    <input v-model="reset.name" class="input font-mono" aria-label="Name of the reset" />
                    <input v-model="reset.title" class="input" aria-label="Title of the reset" />
                    <label class="flex items-center gap-2"
                        ><input v-model="reset.activeLow" type="checkbox" class="size-4" />active low</label
                    >
                    <input v-model="reset.pin" class="input font-mono" aria-label="Pin of the reset" />
                    <select v-model="reset.standard" class="input" aria-label="I/O standard of the reset">
                        <option v-for="each in standards" :key="each">{{ each }}</option>
                    </select>
                    <button
                        type="button"
                        class="text-soft hover:text-error"
                        :aria-label="`Remove ${reset.name}`"
                        @click="board.resets?.splice(at, 1)"
                    >
                        ×
                    </button>
                    <p v-if="wrong(`/resets/${at}`)" class="col-span-6 text-[13px] text-error">
                        {{ wrong(`/resets/${at}`) }}
                    </p>
                </div>

                <h2 class="heading mt-5 flex justify-between">
                    Parts<button type="button" class="text-accent normal-case" @click="addPart">
                        Add a part
                    </button>
                </h2>
                <PartForm
                    v-for="(part, at) in board.parts"
                    :key="at"
                    :part="part"
                    :kinds="kinds"
                    :standards="standards"
                    :types="library?.types ?? []"
                    :wrong="(below: string) => wrong(`/parts/${at}${below}`)"
                    @remove="board.parts?.splice(at, 1)"
                />
                <datalist id="kinds">
                    <option v-for="kind in kinds" :key="kind">{{ kind }}</option>
                </datalist>
            </form>
            <PinBanks
                v-if="device"
                :device="device"
                :used="pins"
                :voltages="board.voltages"
                :wrong="wrong"
                @voltages="(voltages) => board && (board.voltages = voltages)"
            />
        </div>
        <p v-else class="mt-24 text-center text-soft">Reading the board…</p>
        <LeaveGuard :changed="changed" what="board" />
    </HomeFrame>
</template>
