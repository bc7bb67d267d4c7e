<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { answer, client } from '../api/client'
import { copy } from '../frame/notices'
import { vScrolls } from '../frame/scrolls'

const props = defineProps<{ identity: string; own: boolean }>()
const emit = defineEmits<{ remove: [] }>()
const { data: sheet, error } = useQuery({
    queryKey: ['board', props.identity],
    queryFn: () =>
        answer(
            client.GET('/api/library/boards/{identity}', { params: { path: { identity: props.identity } } }),
        ),
})
</script>

<template>
    <article v-scrolls class="min-w-0 flex-1 overflow-auto px-8 py-5">
        <p v-if="error" class="text-error">{{ error.message }}</p>
        <template v-else-if="sheet">
            <div class="float-right flex gap-2">
                <RouterLink v-if="own" :to="`/boards/${sheet.identity}/edit`" class="button"
                    >Change</RouterLink
                >
                <RouterLink :to="`/boards/${sheet.identity}/copy`" class="button">Copy…</RouterLink>
                <a :href="`/api/library/boards/${sheet.identity}/document`" class="button">Export</a>
                <button v-if="own" class="button !text-error" @click="emit('remove')">Remove…</button>
            </div>
            <h2 class="text-2xl font-semibold">{{ sheet.title }}</h2>
            <button
                class="font-mono text-[13px] text-soft hover:text-accent"
                title="Copy"
                @click="copy(sheet.identity)"
            >
                {{ sheet.identity }}
            </button>
            <p class="mt-2">{{ sheet.summary }}.</p>

            <section v-if="sheet.device" class="mt-5">
                <h3 class="heading">Device</h3>
                <p>
                    <span class="font-mono">{{ sheet.device.name }}</span> of the family
                    {{ sheet.device.family }}, {{ sheet.device.packageName }}
                </p>
                <p v-for="fact in sheet.device.facts" :key="fact" class="text-[13px] text-soft">{{ fact }}</p>
                <div class="mt-1 flex gap-12">
                    <table>
                        <tbody>
                            <tr v-for="row in sheet.device.amounts" :key="row.name">
                                <td class="w-36 py-0.5 text-soft">{{ row.name }}</td>
                                <td class="py-0.5 text-right font-mono text-[13px]">
                                    {{ row.amount.toLocaleString('en') }}
                                </td>
                            </tr>
                        </tbody>
                    </table>
                    <table>
                        <tbody>
                            <tr v-for="bank in sheet.device.banks" :key="bank.name">
                                <td class="w-36 py-0.5 text-soft">bank {{ bank.name }}</td>
                                <td class="w-20 py-0.5 font-mono text-[13px]">{{ bank.voltage }}</td>
                                <td class="py-0.5 text-[13px]">
                                    {{ bank.used }} of {{ bank.pins }} pins wired on the board
                                </td>
                            </tr>
                        </tbody>
                    </table>
                </div>
            </section>

            <section class="mt-5">
                <h3 class="heading">Clocks and resets</h3>
                <table>
                    <tbody>
                        <tr v-for="row in sheet.clocksAndResets" :key="row.name">
                            <td class="w-44 py-0.5 font-mono text-[13px] font-semibold">{{ row.name }}</td>
                            <td class="w-52 py-0.5">{{ row.title }}</td>
                            <td class="w-32 py-0.5 text-soft">{{ row.what }}</td>
                            <td class="w-20 py-0.5 font-mono text-[13px]">{{ row.pin }}</td>
                            <td class="py-0.5 text-[13px] text-soft">{{ row.standard }}</td>
                        </tr>
                    </tbody>
                </table>
            </section>

            <section class="mt-5">
                <h3 class="heading">Parts</h3>
                <div v-for="part in sheet.parts" :key="part.name" class="border-b border-line py-2">
                    <p>
                        <span class="font-semibold">{{ part.title }}</span>
                        <span class="ml-2 font-mono text-[13px] text-soft">{{ part.name }}</span>
                        <span class="ml-2 text-soft">{{ part.summary }}</span>
                    </p>
                    <div class="mt-1 grid grid-cols-2 gap-6">
                        <table>
                            <tbody>
                                <tr v-for="signal in part.signals" :key="signal.name" class="align-baseline">
                                    <td class="w-28 font-mono text-[13px]">{{ signal.name }}</td>
                                    <td class="w-28 text-[13px] text-soft">
                                        {{ signal.direction }}{{ signal.activeLow ? ', low' : '' }}
                                    </td>
                                    <td class="font-mono text-[13px]">{{ signal.pins.join(' ') }}</td>
                                    <td class="pl-3 text-[13px] text-soft">{{ signal.standard }}</td>
                                </tr>
                            </tbody>
                        </table>
                        <div>
                            <p v-if="part.drivers.length === 0" class="text-[13px] text-soft">
                                No block of the library drives it yet.
                            </p>
                            <p v-for="driver in part.drivers" :key="driver.identity" class="text-[13px]">
                                driven by
                                <RouterLink
                                    :to="`/library/${driver.identity}`"
                                    class="text-accent underline hover:no-underline"
                                    >{{ driver.title }}</RouterLink
                                >
                                <span class="ml-2 font-mono text-soft">{{
                                    driver.parameters.join(', ')
                                }}</span>
                            </p>
                        </div>
                    </div>
                </div>
            </section>
        </template>
    </article>
</template>
