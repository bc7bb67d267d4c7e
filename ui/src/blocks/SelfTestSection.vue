<script setup lang="ts">
import type { SelfTestView } from '../api/client'
import { counted, useBlockTrial } from './blockTrial'

/** Whether the HDL of a block does what its registers say, on request: of one that is written, or of one in the library. */
const props = defineProps<{ text?: string; identity?: string; disabled?: boolean }>()
const { outcome, cancel, isCurrent, run } = useBlockTrial<SelfTestView>(
    '/api/library/blocks/self-test',
    () => props.text,
    async () => (await fetch(`/api/library/blocks/${props.identity ?? ''}/document`)).text(),
)
const hex = (offset: number): string => `0x${offset.toString(16).toUpperCase()}`
</script>

<template>
    <section aria-labelledby="self-test" class="mt-5">
        <h2 id="self-test" class="heading">Self-test of the registers</h2>
        <p v-if="cancel" class="mt-1 flex items-center gap-2 text-[13px] text-soft" role="status">
            Building the HDL and trying each register…
            <button class="button !py-0" @click="cancel()">Cancel</button>
        </p>
        <template v-else>
            <p v-if="!outcome" class="mt-1 text-[13px] text-soft">
                The HDL runs beside the description: values after reset, what each register keeps of what is
                written, bytes by themselves, and whether writes to one register change another.
            </p>
            <p v-else-if="outcome.missing" class="mt-1 text-[13px] text-warn" role="status">
                Not run: {{ outcome.missing }}
            </p>
            <p v-else class="mt-1 text-[13px]" role="status">
                {{ counted(outcome.words, 'word') }} of registers, {{ outcome.accesses }} accesses:
                <span v-if="!outcome.different.length">the HDL does what the registers say.</span>
                <span v-else>{{ counted(outcome.different.length, 'difference') }}.</span>
                <span v-if="!isCurrent" class="text-warn">The block was changed since.</span>
            </p>
            <ul v-if="outcome?.different.length" class="mt-1" aria-label="What the HDL does in another way">
                <li
                    v-for="each in outcome.different"
                    :key="`${each.offset} ${each.what}`"
                    class="mt-1 text-[13px]"
                >
                    <span class="font-mono text-[12px] text-soft">
                        {{ each.register }} · {{ hex(each.offset) }}
                    </span>
                    <span class="block text-error">{{ each.what }}</span>
                </li>
            </ul>
            <details v-if="outcome?.left.length" class="mt-1 text-[13px] text-soft">
                <summary class="cursor-pointer">
                    {{ counted(outcome.left.length, 'field') }} not compared: the block gives or changes
                    {{ outcome.left.length === 1 ? 'it' : 'them' }}
                </summary>
                <p class="font-mono text-[12px]">{{ outcome.left.join(', ') }}</p>
            </details>
            <button
                class="button mt-2 !py-0.5"
                :disabled="disabled || (isCurrent && !outcome?.missing)"
                :title="disabled ? 'The findings come first' : ''"
                @click="run"
            >
                {{ outcome ? 'Test again' : 'Test the registers' }}
            </button>
        </template>
    </section>
</template>
