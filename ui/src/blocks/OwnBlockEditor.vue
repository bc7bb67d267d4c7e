<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answer, client, Refusal, upload, type BlockLook, type HdlFoundView } from '../api/client'
import LeaveGuard from '../frame/LeaveGuard.vue'
import { tell, tellProblem } from '../frame/notices'
import { vScrolls } from '../frame/scrolls'
import HomeFrame from '../platforms/HomeFrame.vue'
import BlockFiles from './BlockFiles.vue'
import CompilerSection from './CompilerSection.vue'
import InterfaceTables from './InterfaceTables.vue'
import HdlFound from './HdlFound.vue'
import { documentText, newBlock, type OwnBlock } from './ownBlock'
import RegisterBits from './RegisterBits.vue'
import RegisterEditor from './RegisterEditor.vue'
import SelfTestSection from './SelfTestSection.vue'
import SizeSection from './SizeSection.vue'
import TestSection from './TestSection.vue'
import { vTyped } from '../frame/typedText'

const route = useRoute()
const router = useRouter()
const queries = useQueryClient()
const from = computed(() => (route.params.identity as string) || undefined)
const block = ref<OwnBlock>()
/** The change that this was made from; undefined for a block that is not kept yet. */
const change = ref<number>()
const kept = ref('')
const failure = ref<string>()
const look = ref<BlockLook>()
/** The text that was looked at last: what is offered to begin with has to follow from what is there now. */
const looked = ref('')

/** What was found in HDL that the block is made from. */
const found = ref<HdlFoundView>()
const brought = ref<{ name: string; text: string }[]>([])

async function bring(event: Event): Promise<void> {
    const input = event.target as HTMLInputElement
    const files = [...(input.files ?? [])]
    input.value = ''
    if (files.length) {
        brought.value = await Promise.all(
            files.map(async (each) => ({ name: each.name, text: await each.text() })),
        )
        await propose()
    }
}

async function propose(module?: string): Promise<void> {
    try {
        const now = await answer(
            client.POST('/api/library/blocks/from-hdl', {
                body: { files: brought.value, ...(module ? { module } : {}) },
            }),
        )
        found.value = now.document ? now : undefined
        if (now.document) {
            const tests = block.value?.tests ?? []
            block.value = prepared(JSON.parse(now.document) as OwnBlock)
            // Tests stay when the HDL is chosen again without them.
            const names = new Set(block.value.tests?.map((each) => each.name))
            block.value.tests?.push(...tests.filter((each) => !names.has(each.name)))
        }
        refused.value = now.document ? [] : now.problems.map((each) => `${each.at} ${each.what}`.trim())
    } catch (problem) {
        tellProblem(problem)
    }
}
const refused = ref<string[]>([])
const unassigned = computed(() =>
    (found.value?.reasons ?? []).filter((each) => !each.became).map((each) => each.port),
)

function prepared(document: OwnBlock): OwnBlock {
    document.hardware ??= []
    document.drivers ??= []
    document.tests ??= []
    document.definition.registers ??= []
    return document
}

const PARTS = ['vendor', 'library', 'name', 'version'] as const
const identity = computed(() => (block.value?.definition.identity ?? ':::').split(':'))
function setIdentity(at: number, text: string): void {
    if (block.value) {
        block.value.definition.identity = identity.value
            .map((each, index) => (index === at ? text.trim() : each))
            .join(':')
    }
}

/** The document as it is sent. */
const text = computed(() => (block.value ? documentText(block.value) : ''))
const changed = computed(() => block.value !== undefined && text.value !== kept.value)

async function read(): Promise<void> {
    failure.value = undefined
    try {
        if (from.value === undefined) {
            block.value = prepared(newBlock())
        } else {
            const row = await answer(
                client.GET('/api/library/blocks/{identity}', { params: { path: { identity: from.value } } }),
            )
            const response = await fetch(`/api/library/blocks/${encodeURIComponent(from.value)}/document`)
            if (!response.ok) {
                throw new Refusal(response.status, 'Not there', 'There is no such block type of your own.')
            }
            block.value = prepared((await response.json()) as OwnBlock)
            change.value = row.change
        }
        kept.value = from.value === undefined ? '' : text.value
        await check()
    } catch (problem) {
        failure.value = problem instanceof Error ? problem.message : String(problem)
    }
}
void read()

let timer: number | undefined
watch(text, () => {
    window.clearTimeout(timer)
    timer = window.setTimeout(() => void check(), 250)
})

async function check(): Promise<void> {
    const checked = text.value
    try {
        const found = await upload<BlockLook>('/api/library/blocks/look', new Blob([checked]))
        looked.value = checked
        if (checked === text.value || !look.value) {
            // What can be drawn stays in sight while something cannot be read.
            look.value =
                found.document || !look.value
                    ? found
                    : { ...look.value, problems: found.problems, document: '' }
        }
    } catch (problem) {
        tellProblem(problem)
    }
}

const problems = computed(() => look.value?.problems ?? [])
const plain = (what: string): string => what.replace(/^block, line \d+, at [^:]*: /, '')
function wrong(at: string): string {
    return problems.value
        .filter((each) => each.at === at || each.at.startsWith(`${at}/`))
        .map((each) => plain(each.what))
        .join('; ')
}
const ofFile = (file: string): string[] =>
    problems.value
        .filter((each) => each.at.startsWith(`${file}:`))
        .map((each) => `line ${each.at.split(':')[1] ?? ''}: ${each.what}`)
const offsets = computed(() => new Map(look.value?.registers.map((each) => [each.name, each.offset])))
const places = computed(
    () =>
        new Map(
            look.value?.registers.flatMap((register) =>
                register.fields.map(
                    (field) =>
                        [
                            `${register.name}.${field.name}`,
                            field.bits === 1 ? `${field.low}` : `${field.low + field.bits - 1}:${field.low}`,
                        ] as const,
                ),
            ),
        ),
)

async function save(): Promise<void> {
    try {
        const query = change.value === undefined ? '' : `?change=${change.value}`
        const saved = await upload<{ identity: string; change: number }>(
            `/api/library/blocks${query}`,
            new Blob([text.value]),
        )
        kept.value = text.value
        change.value = saved.change
        await queries.invalidateQueries({ queryKey: ['library'] })
        await queries.invalidateQueries({ queryKey: ['datasheet', saved.identity] })
        tell('done', 'Block saved', 'It is in the library, and can be put on any board.')
        await router.replace(`/blocks/${saved.identity}/edit`)
    } catch (problem) {
        tellProblem(problem)
    }
}

/** A further version beside the one that is kept: platforms stay with theirs until they are upgraded. */
function nextVersion(): void {
    const version = identity.value[3] ?? '1.0'
    const next = version.replace(/\d+$/, (last) => String(Number(last) + 1))
    setIdentity(3, next === version ? `${version}.1` : next)
    change.value = undefined
}
</script>

<template>
    <HomeFrame wide>
        <p v-if="failure" class="p-6 text-error">{{ failure }}</p>
        <div v-else-if="block" class="flex h-full flex-col">
            <div class="flex items-center gap-3 border-b border-line bg-sheet px-5 py-2">
                <RouterLink to="/library" class="text-accent hover:underline">Library</RouterLink>
                <h1 class="text-lg font-semibold">{{ block.definition.title || 'Block without a title' }}</h1>
                <span class="text-[13px]" :class="changed ? 'text-warn' : 'text-soft'">
                    {{ changed ? 'not saved' : 'saved' }}
                </span>
                <span class="grow" />
                <a
                    v-if="change !== undefined"
                    class="button"
                    :href="`/api/library/blocks/${from}/document`"
                    title="One file with definition, HDL and drivers, for another installation"
                    >Download</a
                >
                <button v-if="change !== undefined" class="button" @click="nextVersion">New version</button>
                <button
                    class="button-main"
                    :disabled="!changed || problems.length > 0"
                    :title="problems.length ? 'There is something wrong, see the findings' : ''"
                    @click="save"
                >
                    Save
                </button>
            </div>
            <div
                class="grid min-h-0 flex-1 grid-cols-[1fr_340px] grid-rows-[minmax(0,1fr)] max-[1100px]:block max-[1100px]:overflow-auto"
            >
                <form v-scrolls class="relative min-w-0 overflow-auto px-5 py-4" @submit.prevent>
                    <div v-if="change === undefined" class="sheet mb-4 flex items-center gap-3 p-3">
                        <span class="grow text-[13px]">
                            {{
                                found
                                    ? 'When the files have changed, choose them again; the proposal starts afresh then.'
                                    : 'There is Verilog or VHDL already? Then begin with it: the roles of its ports are proposed, with reasons.'
                            }}
                        </span>
                        <label class="button cursor-pointer focus-within:outline focus-within:outline-2">
                            From HDL files …
                            <input
                                type="file"
                                multiple
                                class="sr-only"
                                accept=".v,.vh,.sv,.svh,.vhd,.vhdl"
                                aria-label="HDL files of the block"
                                @change="bring"
                            />
                        </label>
                    </div>
                    <ul v-if="refused.length" class="mb-4 text-[13px] text-error" role="alert">
                        <li v-for="each in refused" :key="each">{{ each }}</li>
                    </ul>
                    <HdlFound v-if="found" :found="found" @choose="propose" />
                    <section
                        aria-labelledby="what"
                        class="grid grid-cols-[90px_1fr] items-center gap-x-3 gap-y-1.5"
                    >
                        <h2 id="what" class="heading col-span-2">What it is</h2>
                        <label for="block-title">Title</label>
                        <input id="block-title" v-model="block.definition.title" class="input" />
                        <label for="block-summary">Summary</label>
                        <input id="block-summary" v-model="block.definition.summary" class="input" />
                        <label for="block-description">Description</label>
                        <textarea
                            id="block-description"
                            v-model="block.definition.description"
                            class="input"
                            rows="2"
                        />
                        <span>Identity</span>
                        <div class="flex items-center gap-1" role="group" aria-label="Identity">
                            <template v-for="(part, at) in PARTS" :key="part">
                                <span v-if="at" class="text-soft">:</span>
                                <input
                                    v-typed="identity[at]"
                                    class="input min-w-0 font-mono"
                                    :class="part === 'version' ? 'w-16' : 'flex-1'"
                                    :aria-label="part"
                                    :title="part"
                                    @change="setIdentity(at, ($event.target as HTMLInputElement).value)"
                                />
                            </template>
                        </div>
                        <label for="block-name">Default name</label>
                        <div class="flex items-center gap-2">
                            <input
                                id="block-name"
                                v-model.trim="block.definition.defaultName"
                                class="input w-40 font-mono"
                            />
                            <span class="text-[13px] text-soft"
                                >what a block of the type is called on a platform</span
                            >
                        </div>
                    </section>
                    <InterfaceTables v-model="block.definition" class="mt-5" :wrong="wrong" />
                    <section aria-labelledby="registers" class="mt-5">
                        <h2 id="registers" class="heading">Registers</h2>
                        <RegisterEditor
                            v-model="block.definition.registers!"
                            class="mt-1"
                            :offsets="offsets"
                            :places="places"
                            :wrong="wrong"
                        />
                    </section>
                    <section aria-labelledby="files" class="mt-5 mb-6">
                        <h2 id="files" class="heading">Files</h2>
                        <BlockFiles
                            v-model="block.hardware!"
                            class="mt-2"
                            title="HDL"
                            accept=".v,.vh,.sv,.svh,.vhd,.vhdl"
                            offer-title="Begin with a module"
                            :offer="
                                looked === text && look?.module
                                    ? { name: `${look.module}.v`, text: look.skeleton }
                                    : undefined
                            "
                            :wrong="ofFile"
                        />
                        <BlockFiles
                            v-model="block.drivers!"
                            class="mt-3"
                            title="C driver"
                            accept=".h"
                            offer-title="Begin with a driver"
                            :offer="
                                looked === text && look?.driverName
                                    ? { name: look.driverName, text: look.driver }
                                    : undefined
                            "
                            :wrong="ofFile"
                        />
                        <BlockFiles
                            v-model="block.tests!"
                            class="mt-3"
                            title="Tests"
                            accept=".v,.sv"
                            offer-title="Begin with a test"
                            :offer="
                                looked === text && look?.testName
                                    ? { name: look.testName, text: look.test }
                                    : undefined
                            "
                            :wrong="ofFile"
                        />
                    </section>
                </form>
                <aside
                    v-scrolls
                    aria-label="Findings, checks and bits"
                    class="min-h-0 overflow-auto border-l border-line bg-sheet px-4 py-4 max-[1100px]:border-t max-[1100px]:border-l-0"
                >
                    <h2 class="heading">Findings</h2>
                    <p v-if="unassigned.length" class="mt-1 text-[13px] text-warn">
                        Unassigned ports of {{ found?.module }}: {{ unassigned.join(', ') }}. Outputs stay
                        open, inputs get zeros.
                    </p>
                    <p v-if="!problems.length" class="mt-1 text-[13px] text-soft">Nothing is wrong.</p>
                    <ul v-else class="mt-1" aria-label="What is wrong">
                        <li v-for="each in problems" :key="each.at + each.what" class="mt-1 text-[13px]">
                            <span class="font-mono text-[12px] text-soft">{{
                                each.at.replace(/^\/definition\//, '') || 'document'
                            }}</span>
                            <span class="block text-error">{{ plain(each.what) }}</span>
                        </li>
                    </ul>
                    <CompilerSection
                        v-if="block.hardware?.length"
                        :text="text"
                        :disabled="problems.length > 0 || looked !== text"
                    />
                    <SelfTestSection
                        v-if="block.hardware?.length"
                        :text="text"
                        :disabled="problems.length > 0 || looked !== text"
                    />
                    <TestSection
                        v-if="block.hardware?.length && block.tests?.length"
                        :text="text"
                        :disabled="problems.length > 0 || looked !== text"
                    />
                    <SizeSection
                        v-if="block.hardware?.length"
                        :text="text"
                        :resources="block.definition.resources"
                        :disabled="problems.length > 0 || looked !== text"
                        @use="block.definition.resources = { ...$event }"
                    />
                    <h2 class="heading mt-5">Bits</h2>
                    <p v-if="!look?.registers.length" class="mt-1 text-[13px] text-soft">No register yet.</p>
                    <RegisterBits
                        v-for="each in look?.registers"
                        :key="each.name"
                        :name="each.name"
                        :offset="each.offset"
                        :width="each.width"
                        :count="each.count"
                        :fields="each.fields"
                    />
                    <h2 class="heading mt-5">Ports of the module</h2>
                    <table v-if="look?.ports.length" class="mt-1 w-full text-[12px]">
                        <tbody>
                            <tr v-for="port in look.ports" :key="port.name" :title="port.explains">
                                <td class="pr-2 text-soft">{{ port.direction }}</td>
                                <td class="font-mono" :class="port.needed ? 'font-semibold' : ''">
                                    {{ port.name }}
                                </td>
                                <td class="text-right font-mono text-soft">{{ port.bits }}</td>
                            </tr>
                        </tbody>
                    </table>
                    <p v-if="look?.ports.length" class="mt-1 text-[12px] text-soft">
                        Bits on the right. A module needs those in bold; it can leave out the others.
                    </p>
                </aside>
            </div>
        </div>
        <LeaveGuard :changed="changed" what="block type" />
    </HomeFrame>
</template>
