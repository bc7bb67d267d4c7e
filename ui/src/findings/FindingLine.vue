<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Edit, FindingView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useAuthor } from '../api/author'
import { gradeText } from './gradeColours'

const props = defineProps<{ finding: FindingView; step: string; view: string }>()
const emit = defineEmits<{ fix: [label: string, edit: Edit] }>()
const context = usePlatform()
const router = useRouter()
const author = useAuthor()
const accepting = ref(false)
const reason = ref('')

function apply(edit: unknown): void {
    void context.edit(edit as Edit)
}

function show(): void {
    context.selected.value = props.finding.block
    void router.push(`/p/${context.id}/${props.view}`)
}

async function accept(): Promise<void> {
    const { rule, subject, what } = props.finding
    if (reason.value.trim()) {
        accepting.value = false
        await context.edit({
            edit: 'accept',
            rule,
            subject,
            what,
            reason: reason.value,
            author: author.value,
            revision: context.platform.value?.revision,
        })
        reason.value = ''
    }
}
</script>

<template>
    <li
        class="grid grid-cols-[90px_1fr_auto] items-start gap-x-4 border-b border-line px-4 py-2"
        data-testid="finding"
    >
        <span class="font-semibold" :class="gradeText(finding.grade, finding.accepted)">
            {{ finding.accepted ? 'accepted' : finding.grade }}
            <span class="block text-[12px] font-normal text-soft">{{ step }}</span>
        </span>
        <div class="min-w-0">
            <button class="text-left font-medium hover:text-accent" @click="show()">
                {{ finding.what }}
            </button>
            <p class="text-[13px] text-soft">
                <template v-if="finding.accepted">
                    {{ finding.accepted }}
                    <span v-if="finding.acceptedBy">— {{ finding.acceptedBy }}</span>
                    <span v-if="finding.acceptedOn">, on revision {{ finding.acceptedOn }}</span>
                </template>
                <template v-else>{{ finding.why }}</template>
            </p>
            <form v-if="accepting" class="mt-1 flex gap-2" @submit.prevent="accept">
                <input
                    v-model="reason"
                    class="input w-96"
                    maxlength="500"
                    placeholder="Why is this all right?"
                    aria-label="Reason for accepting"
                />
                <input
                    v-model="author"
                    class="input w-40"
                    maxlength="80"
                    placeholder="Your name"
                    aria-label="Who accepts it"
                />
                <button class="button-main" :disabled="!reason.trim()">Accept</button>
                <button type="button" class="button" @click="accepting = false">Cancel</button>
            </form>
        </div>
        <div class="flex flex-wrap justify-end gap-2">
            <template v-if="!finding.accepted">
                <button
                    v-for="fix in finding.fixes"
                    :key="fix.label"
                    class="button"
                    data-testid="fix"
                    @click="emit('fix', fix.label, fix.edit as unknown as Edit)"
                >
                    {{ fix.label }}
                </button>
                <button v-if="finding.acceptable" class="button !text-soft" @click="accepting = true">
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
</template>
