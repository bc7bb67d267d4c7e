<script setup lang="ts">
import { computed } from 'vue'
import type { CompiledView } from '../api/client'
import { counted, useBlockTrial } from './blockTrial'

/** What the compilers say of the block as it is now, on request: it takes some seconds. */
const props = defineProps<{ text: string; disabled: boolean }>()
const { outcome, cancel, isCurrent, run } = useBlockTrial<CompiledView>(
    '/api/library/blocks/compile',
    () => props.text,
)
const errors = computed(() => outcome.value?.said.filter((each) => each.isError).length ?? 0)
</script>

<template>
    <section aria-labelledby="compilers" class="mt-5">
        <h2 id="compilers" class="heading">Compilers</h2>
        <p v-if="cancel" class="mt-1 flex items-center gap-2 text-[13px] text-soft" role="status">
            Compiling…
            <button class="button !py-0" @click="cancel()">Cancel</button>
        </p>
        <template v-else>
            <p v-if="!outcome" class="mt-1 text-[13px] text-soft">
                Verilator, and GHDL for VHDL, look at names, directions, widths and what is inside, with the
                defaults and with all parameters as low and as high as they can be.
            </p>
            <p v-else-if="outcome.missing" class="mt-1 text-[13px] text-warn">{{ outcome.missing }}</p>
            <p v-else class="mt-1 text-[13px]" role="status">
                {{ outcome.tools.join(' and ') }}, {{ counted(outcome.sets, 'set') }} of parameters:
                <span v-if="!outcome.said.length">nothing is wrong.</span>
                <span v-else>
                    {{ counted(errors, 'error') }}, {{ counted(outcome.said.length - errors, 'warning') }}.
                </span>
                <span v-if="!isCurrent" class="text-warn">The block was changed since.</span>
            </p>
            <ul v-if="outcome?.said.length" class="mt-1" aria-label="What the compilers say">
                <li v-for="each in outcome.said" :key="each.at + each.what" class="mt-1 text-[13px]">
                    <span class="font-mono text-[12px] text-soft">
                        {{ each.at }}{{ each.with ? ` · ${each.with}` : '' }}
                    </span>
                    <span class="block" :class="each.isError ? 'text-error' : 'text-warn'">{{
                        each.what
                    }}</span>
                </li>
            </ul>
            <button
                class="button mt-2 !py-0.5"
                :disabled="disabled || (isCurrent && !outcome?.missing)"
                :title="disabled ? 'The findings come first' : ''"
                @click="run"
            >
                {{ outcome ? 'Compile again' : 'Compile' }}
            </button>
        </template>
    </section>
</template>
