<script setup lang="ts">
import { computed } from 'vue'
import type { BlockSizeView } from '../api/client'
import { useBlockTrial } from './blockTrial'
import { sizeRows } from './blockSize'

/** What synthesis makes of a block, on request: of one that is written, or of one in the library. */
const props = defineProps<{
    text?: string
    identity?: string
    disabled?: boolean
    /** What the definition says now, where it is edited. */
    resources?: unknown
}>()
const emit = defineEmits<{ use: [made: BlockSizeView['made']] }>()
const { outcome, cancel, isCurrent, run } = useBlockTrial<BlockSizeView>(
    '/api/library/blocks/size',
    () => props.text,
    async () => (await fetch(`/api/library/blocks/${props.identity ?? ''}/document`)).text(),
)
const rows = computed(() =>
    outcome.value && !outcome.value.missing ? sizeRows(outcome.value, props.resources) : [],
)
const differs = computed(() => rows.value.some((row) => row.made !== row.said))
</script>

<template>
    <section aria-labelledby="size" class="mt-5">
        <h2 id="size" class="heading">Size by synthesis</h2>
        <p v-if="cancel" class="mt-1 flex items-center gap-2 text-[13px] text-soft" role="status">
            Synthesising…
            <button class="button !py-0" @click="cancel()">Cancel</button>
        </p>
        <template v-else>
            <p v-if="!outcome" class="mt-1 text-[13px] text-soft">
                What yosys makes of the block with its default parameters, beside what its definition says,
                which the fit of a platform counts with.
            </p>
            <p v-else-if="outcome.missing" class="mt-1 text-[13px] text-warn" role="status">
                Not measured: {{ outcome.missing }}
            </p>
            <template v-else>
                <table class="mt-1 text-[13px]" aria-label="Size">
                    <thead class="text-left text-soft">
                        <tr>
                            <th class="pr-4 font-normal"></th>
                            <th class="pr-4 text-right font-normal">made</th>
                            <th class="text-right font-normal">in the definition</th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr v-for="row in rows" :key="row.what">
                            <td class="pr-4">{{ row.what }}</td>
                            <td class="pr-4 text-right font-mono">{{ row.made.toLocaleString('en') }}</td>
                            <td class="text-right font-mono" :class="row.isFar ? 'text-warn' : ''">
                                {{ row.said.toLocaleString('en') }}
                            </td>
                        </tr>
                    </tbody>
                </table>
                <p class="mt-1 text-[12px] text-soft">
                    Lookup tables of six inputs.
                    <template v-if="outcome.memoryBits">
                        {{ outcome.memoryBits.toLocaleString('en') }} bits of memory besides.
                    </template>
                    <template v-if="!outcome.withRegisters">
                        Of its own HDL alone: registers and the end of the bus come on top.
                    </template>
                    <span v-if="!isCurrent" class="text-warn">The block was changed since.</span>
                </p>
                <button
                    v-if="text !== undefined && differs && outcome.withRegisters"
                    class="button mt-1 mr-2 !py-0.5"
                    @click="emit('use', outcome.made)"
                >
                    Put into the definition
                </button>
            </template>
            <button
                class="button mt-2 !py-0.5"
                :disabled="disabled || (isCurrent && !outcome?.missing)"
                :title="disabled ? 'The findings come first' : ''"
                @click="run"
            >
                {{ outcome ? 'Measure again' : 'Measure the size' }}
            </button>
        </template>
    </section>
</template>
