<script setup lang="ts">
import type { BlockTestsView } from '../api/client'
import { counted, useBlockTrial } from './blockTrial'
import { vScrolls } from '../frame/scrolls'

/** How the tests of a block go, and what they notice, on request: of one that is written, or of one in the library. */
const props = defineProps<{ text?: string; identity?: string; disabled?: boolean }>()
const { outcome, cancel, isCurrent, run } = useBlockTrial<BlockTestsView>(
    '/api/library/blocks/test',
    () => props.text,
    async () => (await fetch(`/api/library/blocks/${props.identity ?? ''}/document`)).text(),
)
</script>

<template>
    <section aria-labelledby="tests" class="mt-5">
        <h2 id="tests" class="heading">Tests of the HDL</h2>
        <p v-if="cancel" class="mt-1 flex items-center gap-2 text-[13px] text-soft" role="status">
            Running the tests, then with planted faults…
            <button class="button !py-0" @click="cancel()">Cancel</button>
        </p>
        <template v-else>
            <p v-if="!outcome" class="mt-1 text-[13px] text-soft">
                The tests that come with the block run in Verilator. Then faults are planted in its HDL, one
                at a time: a good test fails with each.
            </p>
            <p v-else-if="outcome.missing" class="mt-1 text-[13px] text-warn" role="status">
                Not run: {{ outcome.missing }}
            </p>
            <div v-else role="status">
                <div v-for="each in outcome.tests" :key="each.name" class="mt-1 text-[13px]">
                    <span class="font-mono">{{ each.name }}</span>
                    {{ ' ' }}
                    <span :class="each.passes ? '' : 'font-semibold text-error'">
                        {{ each.passes ? 'passes' : 'fails' }}
                    </span>
                    <pre
                        v-if="each.said && !each.passes"
                        v-scrolls
                        class="mt-1 max-h-40 overflow-auto border border-line p-1 text-[12px] whitespace-pre-wrap"
                        >{{ each.said }}</pre>
                </div>
                <p v-if="outcome.notPlanted" class="mt-1 text-[13px] text-soft">
                    No faults planted: {{ outcome.notPlanted }}.
                </p>
                <p v-else class="mt-1 text-[13px]">
                    <span :class="outcome.unnoticed.length ? 'text-warn' : ''">
                        {{ outcome.noticed }} of
                        {{ counted(outcome.tried - outcome.harmless, 'planted fault') }} noticed</span
                    >
                    <template v-if="outcome.harmless">
                        ({{ outcome.harmless }} more make no difference, as yosys proves)</template
                    >.
                    <span v-if="!isCurrent" class="text-warn">The block was changed since.</span>
                </p>
                <details v-if="outcome.unnoticed.length" class="mt-1 text-[13px]">
                    <summary class="cursor-pointer">Faults with which the tests pass</summary>
                    <ul class="mt-1" aria-label="Faults with which the tests pass">
                        <li v-for="each in outcome.unnoticed" :key="`${each.at} ${each.what}`">
                            <span class="font-mono text-[12px] text-soft">{{ each.at }}</span>
                            {{ each.what }}
                        </li>
                    </ul>
                </details>
            </div>
            <button
                class="button mt-2 !py-0.5"
                :disabled="disabled || (isCurrent && !outcome?.missing)"
                :title="disabled ? 'The findings come first' : ''"
                @click="run"
            >
                {{ outcome ? 'Run again' : 'Run the tests' }}
            </button>
        </template>
    </section>
</template>
