<script setup lang="ts">
import { ref, watch } from 'vue'
import { answer, client, type FoundView, type PlacesView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'

const context = usePlatform()
const text = ref('')
const places = ref<PlacesView>()
const found = ref<FoundView[]>()
const problem = ref('')
let asked = 0

watch([text, () => context.platform.value?.revision], async () => {
    const number = ++asked
    const asks = text.value.trim()
    if (!asks) {
        places.value = undefined
        found.value = undefined
        problem.value = ''
        return
    }
    try {
        const path = { id: context.id }
        const isAddress = /^[0-9]/.test(asks)
        const there = isAddress
            ? await answer(
                  client.GET('/api/platforms/{id}/at', { params: { path, query: { address: asks } } }),
              )
            : undefined
        const names = isAddress
            ? undefined
            : await answer(
                  client.GET('/api/platforms/{id}/where', { params: { path, query: { name: asks } } }),
              )
        if (number === asked) {
            places.value = there
            found.value = names
            problem.value =
                names?.length === 0 ? `No initiator reaches a block or register named ${asks}.` : ''
        }
    } catch (error) {
        if (number === asked) {
            places.value = undefined
            found.value = undefined
            problem.value = error instanceof Error ? error.message : String(error)
        }
    }
})
</script>

<template>
    <section class="sheet p-3">
        <label class="flex items-center gap-3">
            <span class="text-lg font-semibold whitespace-nowrap">What is at</span>
            <input
                v-model="text"
                class="input w-56 font-mono"
                placeholder="0x1000_0014"
                spellcheck="false"
                aria-label="Address or name to look up"
            />
            <span class="text-[13px] text-soft">or where is <span class="font-mono">console.LSR</span></span>
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
                        <span v-if="place.fields.length" class="block font-mono text-[12px] text-soft">{{
                            place.fields.join(' · ')
                        }}</span>
                    </td>
                    <td v-else class="py-0.5 text-soft">nothing: an access is a bus fault</td>
                </tr>
            </tbody>
        </table>
        <div v-if="found?.length" v-scrolls class="mt-2 max-h-64 overflow-auto">
            <table class="w-full text-[14px]">
                <tbody>
                    <tr v-for="each in found" :key="each.initiator + each.name">
                        <td class="w-48 py-0.5 font-mono text-[13px] font-semibold">{{ each.name }}</td>
                        <td class="py-0.5 font-mono text-[13px]">{{ each.address }}</td>
                        <td class="py-0.5 text-soft">for {{ each.label }}</td>
                    </tr>
                </tbody>
            </table>
        </div>
    </section>
</template>
