<script setup lang="ts">
import { ref, watch } from 'vue'
import { answer, client, type PlacesView } from '../api/client'
import { usePlatform } from '../frame/platform'

const context = usePlatform()
const text = ref('')
const places = ref<PlacesView>()
const problem = ref('')
let asked = 0

watch([text, () => context.platform.value?.revision], async () => {
    const number = ++asked
    if (!text.value.trim()) {
        places.value = undefined
        problem.value = ''
        return
    }
    try {
        const found = await answer(
            client.GET('/api/platforms/{id}/at', {
                params: { path: { id: context.id }, query: { address: text.value.trim() } },
            }),
        )
        if (number === asked) {
            places.value = found
            problem.value = ''
        }
    } catch (error) {
        if (number === asked) {
            places.value = undefined
            problem.value = error instanceof Error ? error.message : String(error)
        }
    }
})
</script>

<template>
    <section class="sheet p-3">
        <label class="flex items-center gap-3">
            <span class="text-lg font-semibold">What is at</span>
            <input
                v-model="text"
                class="input w-56 font-mono"
                placeholder="0x1000_0014"
                spellcheck="false"
                aria-label="Address to look up"
            />
        </label>
        <p v-if="problem" class="mt-2 text-error">{{ problem }}</p>
        <table v-if="places" class="mt-2 w-full text-[14px]">
            <tbody>
                <tr v-for="place in places.places" :key="place.initiator">
                    <td class="w-48 py-0.5 text-soft">{{ place.label }}</td>
                    <td v-if="place.block" class="py-0.5">
                        <span class="font-semibold">{{ place.block }}</span>
                        <span class="ml-2 font-mono text-[13px]">{{ place.offset }}</span>
                        <span
                            v-if="place.registers.length"
                            class="ml-2 font-mono text-[13px] font-semibold"
                            >{{ place.registers.join(', ') }}</span
                        >
                    </td>
                    <td v-else class="py-0.5 text-soft">nothing: an access is a bus fault</td>
                </tr>
            </tbody>
        </table>
    </section>
</template>
