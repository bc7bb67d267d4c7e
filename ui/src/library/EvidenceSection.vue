<script setup lang="ts">
import type { components } from '../api/generated/schema'
import { copy } from '../frame/notices'

defineProps<{ evidence: components['schemas']['EvidenceView'] }>()

function count(number: number, noun: string): string {
    return `${number} ${noun}${number === 1 ? '' : 's'}`
}
</script>

<template>
    <section class="mt-5">
        <h3 class="heading">Verification</h3>
        <table>
            <tbody>
                <tr class="align-baseline">
                    <td class="w-40 py-0.5 text-soft">hardware files</td>
                    <td class="py-0.5">
                        <button
                            class="font-mono text-[13px] hover:text-accent"
                            title="Copy the hash of the hardware files"
                            @click="copy(evidence.hash)"
                        >
                            {{ evidence.hash }}
                        </button>
                        <span v-if="!evidence.current && evidence.faults" class="ml-2 text-[13px] text-warn"
                            >The figures below were measured with other files.</span
                        >
                    </td>
                </tr>
                <tr class="align-baseline">
                    <td class="w-40 py-0.5 text-soft">planted faults</td>
                    <td v-if="evidence.faults" class="max-w-[80ch] py-0.5">
                        {{ evidence.faults.found }} of
                        {{ evidence.faults.planted - evidence.faults.harmless }} found by
                        {{ evidence.faults.tests.join(' and ')
                        }}<template v-if="evidence.faults.harmless"
                            >; {{ count(evidence.faults.harmless, 'more fault') }} proved to make no
                            difference</template
                        >.
                        <details v-if="evidence.faults.missed.length">
                            <summary class="cursor-pointer text-[13px] text-soft hover:text-accent">
                                {{ count(evidence.faults.missed.length, 'fault') }} not found
                            </summary>
                            <p
                                v-for="place in evidence.faults.missed"
                                :key="place"
                                class="font-mono text-[13px] text-soft"
                            >
                                {{ place }}
                            </p>
                        </details>
                    </td>
                    <td v-else class="py-0.5 text-soft">not measured</td>
                </tr>
                <tr v-if="evidence.proofs.length" class="align-baseline">
                    <td class="w-40 py-0.5 text-soft">proofs</td>
                    <td class="py-0.5">
                        <p v-for="proof in evidence.proofs" :key="proof.module">
                            <span class="font-mono text-[13px]">{{ proof.module }}</span>
                            for every input, {{ proof.cycles }} clock cycles from reset
                        </p>
                    </td>
                </tr>
                <tr v-if="evidence.size" class="align-baseline">
                    <td class="w-40 py-0.5 text-soft">measured size</td>
                    <td class="py-0.5">
                        {{ evidence.size.lookupTables.toLocaleString('en') }} lookup tables of six inputs
                        (estimated {{ evidence.size.estimatedLookupTables.toLocaleString('en') }}),
                        {{ evidence.size.flipFlops.toLocaleString('en') }} flip-flops (estimated
                        {{ evidence.size.estimatedFlipFlops.toLocaleString('en') }})
                        <span class="block font-mono text-[12px] text-soft">{{
                            evidence.size.parameters.join(' ') || 'all parameters at their defaults'
                        }}</span>
                    </td>
                </tr>
            </tbody>
        </table>
    </section>
</template>
