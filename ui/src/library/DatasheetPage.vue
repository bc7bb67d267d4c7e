<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { ref } from 'vue'
import { answer, client } from '../api/client'
import { copy } from '../frame/notices'
import { vScrolls } from '../frame/scrolls'
import OwnBlockActions from '../blocks/OwnBlockActions.vue'
import SelfTestSection from '../blocks/SelfTestSection.vue'
import SizeSection from '../blocks/SizeSection.vue'
import TestSection from '../blocks/TestSection.vue'
import EvidenceSection from './EvidenceSection.vue'

const props = defineProps<{ identity: string; own?: boolean }>()
const { data: sheet, error } = useQuery({
    queryKey: ['datasheet', props.identity],
    queryFn: () =>
        answer(
            client.GET('/api/library/types/{identity}', { params: { path: { identity: props.identity } } }),
        ),
})
const open = ref<string>()
</script>

<template>
    <article v-scrolls class="min-w-0 flex-1 overflow-auto px-8 py-5">
        <p v-if="error" class="text-error">{{ error.message }}</p>
        <template v-else-if="sheet">
            <div class="flex items-center gap-3">
                <h2 class="grow text-2xl font-semibold">{{ sheet.title }}</h2>
                <OwnBlockActions v-if="own" :identity="sheet.identity" :title="sheet.title" />
            </div>
            <button
                class="font-mono text-[13px] text-soft hover:text-accent"
                title="Copy"
                @click="copy(sheet.identity)"
            >
                {{ sheet.identity }}
            </button>
            <p v-if="sheet.versions.length > 1" class="mt-1 flex gap-3 text-[13px] text-soft">
                versions
                <RouterLink
                    v-for="version in sheet.versions"
                    :key="version"
                    :to="`/library/${version}`"
                    class="font-mono"
                    :class="
                        version === sheet.identity ? 'font-semibold text-ink' : 'text-accent hover:underline'
                    "
                    >{{ version.split(':').at(-1) }}</RouterLink
                >
            </p>
            <p v-if="sheet.needs" class="mt-1 text-[13px] text-warn">
                Only on devices with a {{ sheet.needs }}.
            </p>
            <p class="mt-2 max-w-[70ch]">{{ sheet.summary }}. {{ sheet.description }}</p>

            <section v-if="sheet.parameters.length" class="mt-5">
                <h3 class="heading">Parameters</h3>
                <table class="w-full">
                    <thead>
                        <tr class="text-left text-[12px] text-soft">
                            <th scope="col" class="w-40 max-[1100px]:w-auto font-normal">name</th>
                            <th scope="col" class="w-36 max-[1100px]:w-auto font-normal">default</th>
                            <th scope="col" class="w-64 max-[1100px]:w-auto font-normal">allowed</th>
                            <th scope="col" class="font-normal">what it does</th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr
                            v-for="row in sheet.parameters"
                            :key="row.name"
                            class="border-t border-line align-top"
                        >
                            <td class="border-t border-line py-1 pr-3">
                                {{ row.title }}
                                <span class="block font-mono text-[12px] text-soft">{{ row.name }}</span>
                            </td>
                            <td class="border-t border-line py-1 pr-3 font-mono text-[13px]">
                                {{ row.initial }}
                            </td>
                            <td class="border-t border-line py-1 pr-3 font-mono text-[13px]">
                                {{ row.range }}
                            </td>
                            <td class="border-t border-line py-1 text-soft">{{ row.explains }}</td>
                        </tr>
                    </tbody>
                </table>
            </section>

            <section class="mt-5">
                <h3 class="heading">Interfaces</h3>
                <table class="w-full">
                    <tbody>
                        <tr v-for="row in sheet.ports" :key="row.sort + row.name">
                            <td class="w-40 max-[1100px]:w-auto max-[1100px]:pr-3 py-0.5 text-soft">
                                {{ row.sort }}
                            </td>
                            <td
                                class="w-52 max-[1100px]:w-auto max-[1100px]:pr-3 py-0.5 font-mono text-[13px] font-semibold"
                            >
                                {{ row.name }}
                            </td>
                            <td class="py-0.5">{{ row.what }}</td>
                        </tr>
                    </tbody>
                </table>
            </section>

            <section v-if="sheet.registers.length" class="mt-5">
                <h3 class="heading">Registers</h3>
                <p v-if="sheet.standard" class="text-[13px] text-soft">
                    Programming model: {{ sheet.standard }}
                </p>
                <table class="w-full">
                    <tbody>
                        <template v-for="row in sheet.registers" :key="row.offset + row.name">
                            <tr class="align-baseline">
                                <td
                                    class="w-24 max-[1100px]:w-auto max-[1100px]:pr-3 border-t border-line py-0.5 font-mono text-[13px] text-soft"
                                >
                                    {{ row.offset }}
                                </td>
                                <td
                                    class="w-52 max-[1100px]:w-auto max-[1100px]:pr-3 border-t border-line py-0.5"
                                >
                                    <button
                                        class="font-mono text-[13px] font-semibold hover:text-accent"
                                        :aria-expanded="open === row.offset + row.name"
                                        @click="
                                            open =
                                                open === row.offset + row.name
                                                    ? undefined
                                                    : row.offset + row.name
                                        "
                                    >
                                        {{ row.name }}
                                    </button>
                                </td>
                                <td
                                    class="w-14 max-[1100px]:w-auto max-[1100px]:pr-3 border-t border-line py-0.5 text-[13px] text-soft"
                                >
                                    {{ row.access }}
                                </td>
                                <td
                                    class="w-28 max-[1100px]:w-auto max-[1100px]:pr-3 border-t border-line py-0.5 font-mono text-[13px]"
                                >
                                    {{ row.reset }}
                                </td>
                                <td class="border-t border-line py-0.5">
                                    {{ row.explains }}
                                    <span v-if="row.when" class="text-[13px] text-soft"
                                        >There when {{ row.when }}.</span
                                    >
                                </td>
                            </tr>
                            <tr v-if="open === row.offset + row.name">
                                <td></td>
                                <td colspan="4" class="pb-2">
                                    <p
                                        v-for="field in row.fields"
                                        :key="field.name"
                                        class="text-[13px] text-soft"
                                    >
                                        <span class="inline-block w-12 font-mono text-ink">{{
                                            field.bits
                                        }}</span>
                                        <span class="inline-block w-36 font-mono text-ink">{{
                                            field.name
                                        }}</span>
                                        {{ field.explains }}
                                    </p>
                                </td>
                            </tr>
                        </template>
                    </tbody>
                </table>
            </section>

            <section class="mt-5">
                <h3 class="heading">Estimated use of the device</h3>
                <table>
                    <thead>
                        <tr class="text-left text-[12px] text-soft">
                            <th scope="col" class="font-normal">what</th>
                            <th scope="col" class="pr-4 text-right font-normal">at defaults</th>
                            <th scope="col" class="font-normal">from the parameters</th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr v-for="row in sheet.resources" :key="row.name">
                            <td class="w-40 max-[1100px]:w-auto max-[1100px]:pr-3 py-0.5 text-soft">
                                {{ row.name }}
                            </td>
                            <td
                                class="w-28 max-[1100px]:w-auto max-[1100px]:pr-3 py-0.5 pr-4 text-right font-mono text-[13px]"
                            >
                                {{ row.atDefaults.toLocaleString('en') }}
                            </td>
                            <td class="py-0.5 font-mono text-[13px] text-soft">
                                {{ row.formula === String(row.atDefaults) ? '' : row.formula }}
                            </td>
                        </tr>
                    </tbody>
                </table>
            </section>

            <SelfTestSection v-if="own" :identity="sheet.identity" />
            <TestSection v-if="own" :identity="sheet.identity" />
            <SizeSection v-if="own" :identity="sheet.identity" />

            <EvidenceSection v-if="sheet.evidence" :evidence="sheet.evidence" />

            <section v-if="sheet.driver || sheet.compatible.length" class="mt-5">
                <h3 class="heading">Software</h3>
                <p v-if="sheet.compatible.length" class="py-0.5">
                    devicetree <span class="font-mono text-[13px]">{{ sheet.compatible.join(', ') }}</span>
                </p>
                <details v-if="sheet.driver">
                    <summary class="cursor-pointer font-mono text-[13px] hover:text-accent">
                        {{ sheet.driverName }}
                    </summary>
                    <pre
                        class="sheet mt-1 overflow-auto p-3 font-mono text-[13px] leading-[1.45]"
                        tabindex="0"
                        >{{ sheet.driver }}</pre>
                </details>
            </section>
        </template>
    </article>
</template>
