<script setup lang="ts">
import DialogFrame from '../frame/DialogFrame.vue'
import { watch } from 'vue'
import { open } from '../frame/actions'
import { usePlatform } from '../frame/platform'
import { usePlan } from './plan'
import PlanLines from './PlanLines.vue'

const context = usePlatform()
const { plan, problem, begin, toggle, choose, apply } = usePlan(context)

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
    if (await apply()) {
        open.wiring = false
    }
}
</script>

<template>
    <DialogFrame
        :open="open.wiring"
        :title="open.paste ? 'Paste blocks' : 'Wiring plan'"
        :width="720"
        @close="open.wiring = false"
    >
        <p v-if="problem" class="mt-2 text-error">{{ problem }}</p>
        <p v-else-if="!plan" class="mt-2 text-soft">Looking for loose ends…</p>
        <p v-else-if="plan.lines.length === 0 && open.paste" class="mt-2 text-soft">
            The blocks are added; there is nothing that they could be connected to.
        </p>
        <p v-else-if="plan.lines.length === 0" class="mt-2 text-soft">
            Nothing is loose that could be tied: every clock, reset, bus interface, interrupt and board part
            that has a place has it.
        </p>
        <template v-else>
            <p class="mt-1 text-soft">
                {{
                    open.paste
                        ? 'The blocks are added, and these loose ends tied.'
                        : 'These loose ends can be tied.'
                }}
                Nothing you decided is changed; the lines left on are applied as one edit.
            </p>
            <div class="mt-3 min-h-0 flex-1 overflow-auto">
                <PlanLines :lines="plan.lines" @toggle="toggle" @choose="choose" />
            </div>
        </template>
        <template #buttons>
            <button class="button" @click="open.wiring = false">Close</button>
            <button
                v-if="plan && (open.paste || plan.lines.length)"
                class="button-main"
                :disabled="!open.paste && !plan.lines.some((line) => line.on)"
                @click="confirm"
            >
                {{ open.paste ? 'Paste' : 'Apply' }}
            </button>
        </template>
    </DialogFrame>
</template>
