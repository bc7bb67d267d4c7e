<script setup lang="ts">
import {
    CheckCircleIcon,
    ExclamationTriangleIcon,
    InformationCircleIcon,
    XCircleIcon,
    XMarkIcon,
} from '@heroicons/vue/20/solid'
import { computed, ref } from 'vue'
import { answer, client, type Edit, type FindingView, type OfferView } from '../api/client'
import DialogFrame from '../frame/DialogFrame.vue'
import { tellProblem } from '../frame/notices'
import FindingLine from './FindingLine.vue'
import { open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'
import ConsequenceList from './ConsequenceList.vue'
import { useConsequences } from './consequences'
import { useFixing } from './fixing'
import { gradeText } from './gradeColours'

const context = usePlatform()
const findings = computed(() => context.platform.value?.findings ?? [])
const active = computed(() => findings.value.filter((finding) => !finding.accepted))
const accepted = computed(() => findings.value.filter((finding) => finding.accepted))
const worst = computed(() => active.value[0])

/** Where the findings of a step are looked at. */
const VIEWS: Record<string, string> = {
    Compose: 'compose',
    Addresses: 'addresses',
    Interrupts: 'interrupts',
    Clocks: 'clocks',
    Pins: 'pins',
    Fit: 'fit',
    'Hand-off': 'handoff',
}
const groups = computed(() => {
    const members = new Map<string, FindingView[]>()
    for (const finding of findings.value) {
        const list = members.get(finding.group)
        if (list) {
            list.push(finding)
        } else {
            members.set(finding.group, [finding])
        }
    }
    const all = context.platform.value?.findingGroups ?? []
    return all.map((group) => ({ ...group, findings: members.get(group.key) ?? [] }))
})
const unfolded = ref(new Set<string>())
function fold(key: string): void {
    if (!unfolded.value.delete(key)) {
        unfolded.value.add(key)
    }
}

const fixing = useFixing(context)
const settling = ref<OfferView>()
const settlingBreaks = useConsequences(context, () => settling.value?.edit as unknown as Edit | undefined)
async function settle(group: string): Promise<void> {
    try {
        settling.value = await answer(
            client.GET('/api/platforms/{id}/settle', {
                params: { path: { id: context.id }, query: { group } },
            }),
        )
    } catch (error) {
        tellProblem(error)
    }
}
async function applySettling(): Promise<void> {
    const offer = settling.value
    settling.value = undefined
    if (offer?.edit) {
        await context.edit(offer.edit as unknown as Edit, offer.revision)
    }
}

const summary = computed(() => {
    const count = (grade: string, many: string): string => {
        const number = active.value.filter((finding) => finding.grade === grade).length
        return number === 0 ? '' : number === 1 ? `1 ${grade}` : `${number} ${many}`
    }
    const parts = [count('error', 'errors'), count('warning', 'warnings'), count('note', 'notes')].filter(
        Boolean,
    )
    if (parts.length === 0 && context.platform.value?.blocks.length === 0) {
        return 'Nothing to check yet: add a processor first'
    }
    return parts.length > 0 ? parts.join(', ') : 'No findings'
})
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
                <template v-for="group in groups" :key="group.key">
                    <li
                        v-if="group.count > 1"
                        class="grid grid-cols-[90px_1fr_auto] items-center gap-x-4 border-b border-line px-4 py-2"
                        data-testid="finding-group"
                    >
                        <span class="font-semibold" :class="gradeText(group.grade, group.accepted)">
                            {{ group.accepted ? 'accepted' : group.grade }} × {{ group.count }}
                            <span class="block text-[12px] font-normal text-soft">{{ group.step }}</span>
                        </span>
                        <button
                            class="min-w-0 truncate text-left font-medium hover:text-accent"
                            :aria-expanded="unfolded.has(group.key)"
                            @click="fold(group.key)"
                        >
                            {{ group.line }}
                            <span class="text-[13px] text-accent">{{
                                unfolded.has(group.key) ? 'fold' : 'each of them'
                            }}</span>
                        </button>
                        <button
                            v-if="group.fixable && !group.accepted"
                            class="button"
                            @click="settle(group.key)"
                        >
                            Settle all {{ group.count }}…
                        </button>
                    </li>
                    <template v-if="group.count === 1 || unfolded.has(group.key)">
                        <FindingLine
                            v-for="finding in group.findings"
                            :key="finding.rule + finding.subject + finding.what"
                            :finding="finding"
                            :step="group.step"
                            :view="VIEWS[group.step] ?? 'compose'"
                            :class="group.count > 1 ? 'bg-paper' : ''"
                            @fix="fixing.begin"
                        />
                    </template>
                </template>
            </ul>
        </div>
        <DialogFrame
            :open="fixing.asked.value !== undefined"
            :title="`${fixing.asked.value?.label ?? ''}?`"
            :width="620"
            @close="fixing.asked.value = undefined"
        >
            <ConsequenceList
                :consequences="fixing.asked.value?.consequences ?? []"
                title="New findings after this fix"
            />
            <template #buttons>
                <button class="button" @click="fixing.asked.value = undefined">Cancel</button>
                <button class="button-main" @click="fixing.confirm">Apply</button>
            </template>
        </DialogFrame>
        <DialogFrame :open="settling !== undefined" title="Settle them all" @close="settling = undefined">
            <p v-if="settling?.problem" class="mt-2 text-error">{{ settling.problem }}</p>
            <ul v-else v-scrolls class="mt-2 max-h-[50vh] list-disc overflow-auto pl-5">
                <li v-for="line in settling?.words.split('; ')" :key="line">{{ line }}</li>
            </ul>
            <ConsequenceList :consequences="settlingBreaks" />
            <template #buttons>
                <button class="button" @click="settling = undefined">Close</button>
                <button v-if="settling?.edit && settlingBreaks" class="button-main" @click="applySettling">
                    Apply
                </button>
            </template>
        </DialogFrame>
        <div class="flex h-10 items-center gap-3 px-4">
            <button
                class="flex items-center gap-2 font-semibold hover:text-accent"
                :aria-expanded="open.findings"
                @click="open.findings = !open.findings"
            >
                <XCircleIcon v-if="worst?.grade === 'error'" class="size-5 text-error" />
                <ExclamationTriangleIcon v-else-if="worst?.grade === 'warning'" class="size-5 text-warn" />
                <InformationCircleIcon v-else-if="worst" class="size-5 text-soft" />
                <CheckCircleIcon v-else class="size-5 text-accent" />
                <span class="whitespace-nowrap" data-testid="findings-summary">{{ summary }}</span>
            </button>
            <template v-if="worst">
                <span class="min-w-0 truncate">{{ worst.what }}</span>
                <button
                    v-if="worst.fixes[0]"
                    class="button !py-0.5"
                    @click="fixing.begin(worst.fixes[0].label, worst.fixes[0].edit as unknown as Edit)"
                >
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
