<script setup lang="ts">
import type { PlanView } from '../api/client'

defineProps<{ lines: PlanView['lines'] }>()
const emit = defineEmits<{ toggle: [key: string]; choose: [key: string, choice: number] }>()
</script>

<template>
    <ul>
        <li
            v-for="line in lines"
            :key="line.key"
            class="grid grid-cols-[22px_92px_1fr] items-start gap-x-2 border-b border-line py-1"
            data-testid="plan-line"
        >
            <input
                type="checkbox"
                class="mt-1 size-4 accent-[var(--accent)]"
                :checked="line.on"
                :disabled="line.choices.length > 0 && line.chosen == null"
                :aria-label="`Do: ${line.what}`"
                @change="emit('toggle', line.key)"
            />
            <span class="text-[13px] text-soft">{{ line.kind }}</span>
            <div>
                <div class="font-mono text-[13px]">{{ line.what }}</div>
                <div class="text-[13px] text-soft">{{ line.why }}</div>
                <select
                    v-if="line.choices.length"
                    class="input mt-1"
                    :aria-label="`Choose for ${line.what}`"
                    :value="line.chosen ?? ''"
                    @change="emit('choose', line.key, Number(($event.target as HTMLSelectElement).value))"
                >
                    <option value="" disabled>choose…</option>
                    <option v-for="(choice, at) in line.choices" :key="choice" :value="at">
                        {{ choice }}
                    </option>
                </select>
            </div>
        </li>
    </ul>
</template>
