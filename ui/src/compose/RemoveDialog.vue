<script setup lang="ts">
import { computed } from 'vue'
import DialogFrame from '../frame/DialogFrame.vue'
import { usePlatform } from '../frame/platform'
import type { Selection } from './selection'
import ConsequenceList from '../findings/ConsequenceList.vue'

const props = defineProps<{ selection: Selection }>()
const context = usePlatform()
const removal = computed(() => props.selection.removal.value)
const others = computed(
    () =>
        context.platform.value?.domains
            .map((domain) => domain.name)
            .filter((name) => !removal.value?.domains.some((domain) => domain.name === name)) ?? [],
)
</script>

<template>
    <DialogFrame
        :open="removal !== undefined"
        :title="`Remove ${removal?.names.join(', ') ?? ''}?`"
        :width="620"
        @close="selection.keep"
    >
        <section v-if="removal?.domains.length" class="mt-2" aria-label="Clock domains">
            <p class="text-soft">It makes clocks. Where does what runs on them go?</p>
            <label
                v-for="domain in removal.domains"
                :key="domain.name"
                class="mt-1 grid grid-cols-[200px_1fr] items-center gap-2"
            >
                <span class="font-mono text-[13px] font-semibold">{{ domain.name }}</span>
                <select v-model="domain.into" class="input">
                    <option value="">stays without a clock</option>
                    <option v-for="other in others" :key="other" :value="other">to {{ other }}</option>
                </select>
            </label>
        </section>
        <ConsequenceList
            :consequences="removal?.consequences ?? []"
            :title="removal?.domains.length ? 'New findings if everything stays where it is' : 'New findings'"
        />
        <template #buttons>
            <button class="button" @click="selection.keep">Keep</button>
            <button class="button-main" @click="selection.confirmRemoval">Remove</button>
        </template>
    </DialogFrame>
</template>
