<script setup lang="ts">
import { CheckCircleIcon, ExclamationTriangleIcon, XCircleIcon, XMarkIcon } from '@heroicons/vue/20/solid'
import { computed, ref, shallowRef } from 'vue'
import { useRouter } from 'vue-router'
import type { Edit, FindingView } from '../api/client'
import { open } from '../frame/actions'
import { usePlatform } from '../frame/platform'

const context = usePlatform()
const router = useRouter()
const findings = computed(() => context.platform.value?.findings ?? [])
const active = computed(() => findings.value.filter((finding) => !finding.accepted))
const accepted = computed(() => findings.value.filter((finding) => finding.accepted))
const worst = computed(() => active.value[0])
const accepting = shallowRef<FindingView>()
const reason = ref('')

const summary = computed(() => {
    const count = (grade: string, many: string): string => {
        const number = active.value.filter((finding) => finding.grade === grade).length
        return number === 0 ? '' : number === 1 ? `1 ${grade}` : `${number} ${many}`
    }
    const parts = [count('error', 'errors'), count('warning', 'warnings'), count('note', 'notes')].filter(
        Boolean,
    )
    return parts.length > 0 ? parts.join(', ') : 'No findings'
})

function apply(edit: unknown): void {
    void context.edit(edit as Edit)
}

function show(finding: FindingView): void {
    context.selected.value = finding.block
    void router.push(`/p/${context.id}/compose`)
}

async function accept(): Promise<void> {
    const finding = accepting.value
    if (finding && reason.value.trim()) {
        accepting.value = undefined
        await context.edit({
            edit: 'accept',
            rule: finding.rule,
            subject: finding.subject,
            what: finding.what,
            reason: reason.value,
        })
        reason.value = ''
    }
}
</script>

<template>
    <section class="relative border-t border-line bg-sheet" aria-label="Findings">
        <div
            v-if="open.findings"
            class="absolute inset-x-0 bottom-full max-h-[55vh] overflow-auto border-t border-line bg-sheet shadow-[0_-6px_16px_rgb(0_0_0/0.08)]"
        >
            <div
                class="sticky top-0 flex items-center justify-between border-b border-line bg-sheet px-4 py-2"
            >
                <h2 class="font-semibold">Findings</h2>
                <button
                    class="text-soft hover:text-ink"
                    aria-label="Close the findings"
                    @click="open.findings = false"
                >
                    <XMarkIcon class="size-5" />
                </button>
            </div>
            <p v-if="findings.length === 0" class="px-4 py-6 text-soft">
                Nothing stands in the way. Everything that would fail later is checked on each change.
            </p>
            <ul>
                <li
                    v-for="finding in [...active, ...accepted]"
                    :key="finding.rule + finding.subject + finding.what"
                    class="grid grid-cols-[90px_1fr_auto] items-start gap-x-4 border-b border-line px-4 py-2"
                    data-testid="finding"
                >
                    <span
                        class="font-semibold"
                        :class="
                            finding.accepted
                                ? 'text-soft'
                                : finding.grade === 'error'
                                  ? 'text-error'
                                  : 'text-warn'
                        "
                    >
                        {{ finding.accepted ? 'accepted' : finding.grade }}
                    </span>
                    <div class="min-w-0">
                        <button class="text-left font-medium hover:text-accent" @click="show(finding)">
                            {{ finding.what }}
                        </button>
                        <p class="text-[13px] text-soft">{{ finding.accepted ?? finding.why }}</p>
                        <form v-if="accepting === finding" class="mt-1 flex gap-2" @submit.prevent="accept">
                            <input
                                v-model="reason"
                                class="input w-96"
                                maxlength="500"
                                placeholder="Why is this all right?"
                                aria-label="Reason for accepting"
                            />
                            <button class="button-main" :disabled="!reason.trim()">Accept</button>
                            <button type="button" class="button" @click="accepting = undefined">
                                Cancel
                            </button>
                        </form>
                    </div>
                    <div class="flex flex-wrap justify-end gap-2">
                        <template v-if="!finding.accepted">
                            <button
                                v-for="fix in finding.fixes"
                                :key="fix.label"
                                class="button"
                                data-testid="fix"
                                @click="apply(fix.edit)"
                            >
                                {{ fix.label }}
                            </button>
                            <button
                                v-if="finding.acceptable"
                                class="button !text-soft"
                                @click="accepting = finding"
                            >
                                Accept…
                            </button>
                        </template>
                        <button
                            v-else
                            class="button !text-soft"
                            @click="apply({ edit: 'reopen', rule: finding.rule, subject: finding.subject })"
                        >
                            Reopen
                        </button>
                    </div>
                </li>
            </ul>
        </div>
        <div class="flex h-10 items-center gap-3 px-4">
            <button
                class="flex items-center gap-2 font-semibold hover:text-accent"
                :aria-expanded="open.findings"
                @click="open.findings = !open.findings"
            >
                <XCircleIcon v-if="worst?.grade === 'error'" class="size-5 text-error" />
                <ExclamationTriangleIcon v-else-if="worst" class="size-5 text-warn" />
                <CheckCircleIcon v-else class="size-5 text-accent" />
                <span data-testid="findings-summary">{{ summary }}</span>
            </button>
            <template v-if="worst">
                <span class="min-w-0 truncate">{{ worst.what }}</span>
                <button v-if="worst.fixes[0]" class="button !py-0.5" @click="apply(worst.fixes[0].edit)">
                    {{ worst.fixes[0].label }}
                </button>
            </template>
            <span v-if="accepted.length" class="text-[13px] text-soft">{{ accepted.length }} accepted</span>
            <span class="flex-1"></span>
            <span class="text-[13px] whitespace-nowrap text-soft">
                fingerprint <span class="font-mono">{{ context.platform.value?.fingerprint }}</span>
            </span>
        </div>
    </section>
</template>
