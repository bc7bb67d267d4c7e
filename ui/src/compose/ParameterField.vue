<script setup lang="ts">
import { computed, ref, useId } from 'vue'
import type { Edit, ValueView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useTypedValue } from '../frame/typedValue'
import RefusedValue from '../frame/RefusedValue.vue'
import { usePreview } from './preview'
import { gradeText } from '../findings/gradeColours'

const props = defineProps<{ block: string; value: ValueView }>()
const context = usePlatform()
const parameter = computed(() => props.value.parameter)
const isAddress = computed(() => ['address', 'size', 'integer'].includes(parameter.value.form))
/** The value worked out, where it says more than what is written. */
const worked = computed(() =>
    isAddress.value && props.value.shown.split(' ')[0] !== props.value.text ? props.value.shown : '',
)

const setting = (value: string): Edit => ({
    edit: 'set-parameter',
    block: props.block,
    parameter: parameter.value.name,
    value,
})
const set = (value: string): Promise<boolean> => context.edit(setting(value))
const typed = useTypedValue(
    () => props.value.text,
    (value) => context.tryEdit(setting(value)),
)
const { text, refused } = typed
/** An expression, or a number with a unit of its own, needs none behind it. */
const isNumber = computed(() => !/[a-z(]/i.test(text.value))
const reason = useId()
const field = useId()
const focused = ref(false)
const preview = usePreview(
    context.id,
    () => props.block,
    () => parameter.value.name,
    () =>
        focused.value && text.value.trim() && text.value.trim() !== props.value.text ? text.value : undefined,
)

function toDefault(): void {
    void context.edit({ edit: 'set-parameter', block: props.block, parameter: parameter.value.name })
}
</script>

<template>
    <div class="py-0.5" :title="parameter.explains">
        <div class="grid grid-cols-[128px_1fr_18px] items-center">
            <label :for="field">{{ parameter.title }}</label>
            <select
                v-if="parameter.form === 'choice'"
                :id="field"
                class="input min-w-0"
                :value="value.text"
                @change="set(($event.target as HTMLSelectElement).value)"
            >
                <option v-for="choice in parameter.choices" :key="choice.value" :value="choice.value">
                    {{ choice.title }}
                </option>
            </select>
            <input
                v-else-if="parameter.form === 'boolean'"
                :id="field"
                type="checkbox"
                class="size-4 accent-[var(--accent)]"
                :checked="value.shown === 'on'"
                @change="set(value.shown === 'on' ? '0' : '1')"
            />
            <span v-else class="relative flex min-w-0">
                <input
                    :id="field"
                    v-model="text"
                    class="input min-w-0 flex-1 font-mono text-[13px]"
                    :class="{ '!border-error': refused }"
                    :style="
                        parameter.unit && isNumber
                            ? { paddingRight: `${parameter.unit.length + 2}ch` }
                            : undefined
                    "
                    spellcheck="false"
                    :aria-invalid="refused !== undefined"
                    :aria-describedby="refused ? reason : undefined"
                    @keydown.enter="typed.enter"
                    @keydown.esc.stop="typed.reset"
                    @focus="((focused = true), typed.focus())"
                    @blur="((focused = false), typed.leave())"
                />
                <span
                    v-if="parameter.unit && isNumber"
                    class="pointer-events-none absolute inset-y-0 right-2 flex items-center text-[13px] text-soft"
                    >{{ parameter.unit }}</span
                >
            </span>
            <button
                v-if="value.chosen"
                class="text-right text-soft hover:text-accent"
                :title="`Back to the default, ${parameter.initial || 'none'}`"
                :aria-label="`${parameter.title} back to the default`"
                @click="toDefault"
            >
                ↺
            </button>
        </div>
        <RefusedValue :id="reason" :reason="refused" />
        <div v-if="worked || value.note" class="flex justify-end gap-2 pr-5 text-[12px] text-soft">
            <span v-if="worked" class="font-mono">= {{ worked }}</span>
            <span v-if="value.note" class="font-mono">{{ value.note }}</span>
        </div>
        <div v-if="focused" class="mt-1 mb-1.5 rounded bg-paper px-2 py-1 text-[13px]" role="status">
            <p>{{ parameter.explains }}</p>
            <p class="text-soft">
                <template v-if="parameter.range"
                    >{{ parameter.range }}{{ parameter.unit ? ` ${parameter.unit}` : '' }} ·
                </template>
                default {{ parameter.initial }}
            </p>
            <template v-if="preview">
                <p v-if="preview.problem" class="text-error">{{ preview.problem }}</p>
                <p v-for="change in preview.changes" :key="change" class="font-mono text-[12px]">
                    {{ change }}
                </p>
                <p
                    v-for="broken in preview.breaks"
                    :key="broken.subject + broken.what"
                    :class="gradeText(broken.grade)"
                >
                    {{ broken.what }}
                </p>
            </template>
        </div>
    </div>
</template>
