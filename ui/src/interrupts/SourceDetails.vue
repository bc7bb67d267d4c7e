<script setup lang="ts">
import { computed } from 'vue'
import type { InterruptPortView, SourceView } from '../api/client'
import { tell } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import { vTyped } from '../frame/typedText'

const props = defineProps<{ source: SourceView | undefined; port: InterruptPortView | undefined }>()
const context = usePlatform()
const input = computed(() => props.port?.inputs.find((each) => each.input === props.source?.input))

function renumber(event: Event): void {
    const source = props.source
    const wanted = Number((event.target as HTMLInputElement).value)
    if (source?.sinkBlock && Number.isInteger(wanted)) {
        void context.edit({
            edit: 'connect-interrupt',
            block: source.block,
            source: source.name,
            sinkBlock: source.sinkBlock,
            sink: source.sink,
            input: wanted,
        })
    }
}

function prioritise(event: Event): void {
    const field = event.target as HTMLInputElement
    const text = field.value.trim()
    const source = props.source
    if (text !== '' && !Number.isInteger(Number(text))) {
        field.value = String(source?.wanted ?? '')
        tell('problem', 'Not a priority', 'Write a whole number; empty leaves it to software.')
    } else if (source) {
        void context.edit({
            edit: 'set-interrupt-priority',
            block: source.block,
            source: source.name,
            ...(text === '' ? {} : { priority: Number(text) }),
        })
    }
}
</script>

<template>
    <aside aria-label="Interrupt source" class="sheet h-fit p-4">
        <p v-if="!source" class="text-soft">
            Select a source to see its number on both sides, its way to the hart, and the registers that set
            its priority.
        </p>
        <template v-else>
            <h2 class="text-lg font-semibold">{{ source.block }}.{{ source.name }}</h2>
            <p class="mt-1 text-[13px] text-soft">
                Signals by {{ source.trigger === 'edge' ? 'an edge' : `a ${source.trigger} level` }}.
            </p>
            <p class="mt-2 text-[13px]">{{ source.path }}</p>
            <p v-if="source.crossing" class="mt-1 text-[13px] text-soft">
                Crosses clock domains, {{ source.crossing }}.
            </p>
            <dl v-if="input && port?.numbered" class="mt-3 grid grid-cols-[1fr_auto] gap-y-1 text-[14px]">
                <dt class="text-soft">IRQ number</dt>
                <dd>
                    <input
                        v-typed="input.software"
                        class="input w-20 text-right font-mono"
                        inputmode="numeric"
                        aria-label="IRQ number"
                        @change="renumber"
                    />
                </dd>
                <dt class="text-soft">hardware input</dt>
                <dd class="text-right font-mono text-[13px]">{{ input.hardware }}</dd>
                <dt class="text-soft">priority to give it</dt>
                <dd>
                    <input
                        v-typed="source.wanted ?? ''"
                        class="input w-20 text-right font-mono"
                        inputmode="numeric"
                        aria-label="Priority to give it"
                        placeholder="any"
                        @change="prioritise"
                    />
                </dd>
                <template v-if="input.priority">
                    <dt class="text-soft">priority register</dt>
                    <dd class="text-right font-mono text-[13px]">{{ input.priority }}</dd>
                    <template v-for="each in input.contexts" :key="each.context">
                        <dt v-if="input.contexts.length > 1" class="col-span-2 mt-2 font-semibold">
                            for {{ each.to }}, context {{ each.context }}
                        </dt>
                        <dt class="text-soft">enable, bit {{ input.enableBit }} of</dt>
                        <dd class="text-right font-mono text-[13px]">{{ each.enable }}</dd>
                        <dt class="text-soft">threshold</dt>
                        <dd class="text-right font-mono text-[13px]">{{ each.threshold }}</dd>
                    </template>
                </template>
            </dl>
            <p v-if="input?.priority" class="mt-2 text-[13px] text-soft">
                Priority 0 never interrupts; a source gets through when it is enabled and its priority is
                above the threshold (RISC-V PLIC 1.0.0).
            </p>
        </template>
    </aside>
</template>
