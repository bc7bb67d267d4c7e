<script setup lang="ts">
import DialogFrame from '../frame/DialogFrame.vue'
import { watch } from 'vue'
import { open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'
import type { Edit } from '../api/client'
import ConsequenceList from '../findings/ConsequenceList.vue'
import { useConsequences } from '../findings/consequences'
import { focusCard } from './focusCard'
import { usePlan } from './plan'
import PlanLines from './PlanLines.vue'

/** Time in which pasted blocks appear, in milliseconds. */
const LONGEST = 5000

const context = usePlatform()
const { plan, problem, begin, toggle, choose, apply } = usePlan(context)
const breaks = useConsequences(context, () => plan.value?.edit as unknown as Edit | undefined)

watch(
    () => open.wiring,
    (opened) => {
        if (opened) {
            void begin(undefined, open.paste)
        } else {
            open.paste = undefined
        }
    },
)

async function confirm(): Promise<void> {
    const before = new Set(context.platform.value?.blocks.map((block) => block.name))
    const pastes = open.paste !== undefined
    if (await apply()) {
        open.wiring = false
        if (pastes) {
            selectNew(before)
        }
    }
}

/** Selects the first of the blocks that were not there before, as soon as the platform is read again. */
function selectNew(before: Set<string>): void {
    const stop = watch(
        () => context.platform.value?.blocks.find((block) => !before.has(block.name))?.name,
        (added) => {
            if (added) {
                context.selected.value = added
                focusCard(added)
                window.setTimeout(() => {
                    stop()
                })
            }
        },
        { immediate: true },
    )
    window.setTimeout(stop, LONGEST)
}
</script>

<template>
    <DialogFrame
        :open="open.wiring"
        :title="open.paste ? (open.duplicates ? 'Duplicate blocks' : 'Paste blocks') : 'Wiring plan'"
        :width="720"
        @close="open.wiring = false"
    >
        <p v-if="problem" class="mt-2 text-error">{{ problem }}</p>
        <p v-else-if="!plan" class="mt-2 text-soft">Looking for unconnected interfaces…</p>
        <p v-else-if="plan.lines.length === 0 && open.paste" class="mt-2 text-soft">
            The blocks are added; there is nothing that they could be connected to.
        </p>
        <p v-else-if="plan.lines.length === 0" class="mt-2 text-soft">
            Nothing left to connect: every clock, reset, bus interface, interrupt and board part that can be
            connected is.
        </p>
        <template v-else>
            <p class="mt-1 text-soft">
                {{
                    open.paste
                        ? 'The blocks are added, and these connections made.'
                        : 'These connections can be made.'
                }}
                Nothing you decided is changed; the lines left on are applied as one edit.
            </p>
            <div v-scrolls class="mt-3 min-h-0 flex-1 overflow-auto">
                <PlanLines :lines="plan.lines" @toggle="toggle" @choose="choose" />
            </div>
            <ConsequenceList :consequences="breaks" />
        </template>
        <template #buttons>
            <button class="button" @click="open.wiring = false">Close</button>
            <button
                v-if="plan && (breaks || !plan.edit) && (open.paste || plan.lines.length)"
                class="button-main"
                :disabled="!open.paste && !plan.lines.some((line) => line.on)"
                @click="confirm"
            >
                {{ open.paste ? (open.duplicates ? 'Duplicate' : 'Paste') : 'Apply' }}
            </button>
        </template>
    </DialogFrame>
</template>
