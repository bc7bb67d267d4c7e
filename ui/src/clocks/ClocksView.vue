<script setup lang="ts">
import { answer, client } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useRevisionQuery } from '../frame/revisionQuery'
import { vScrolls } from '../frame/scrolls'
import ClockPlanner from './ClockPlanner.vue'
import ClockTree from './ClockTree.vue'
import DomainInspector from './DomainInspector.vue'
import { computed } from 'vue'

const context = usePlatform()
const { data: clocks, error } = useRevisionQuery('clocks', (id, at) =>
    answer(client.GET('/api/platforms/{id}/clocks', { params: { path: { id }, query: { at } } })),
)
const domain = computed(() => {
    const name = context.selected.value?.startsWith('domain ') ? context.selected.value.slice(7) : undefined
    return context.platform.value?.domains.some((each) => each.name === name) ? name : undefined
})
</script>

<template>
    <div v-scrolls class="h-full overflow-auto px-5 py-4">
        <p v-if="error && !clocks" class="mt-16 text-center text-error">{{ error.message }}</p>
        <div
            v-else-if="clocks"
            class="grid grid-cols-[minmax(0,1.25fr)_minmax(440px,1fr)] max-[1100px]:grid-cols-1 gap-8"
        >
            <div class="flex min-w-0 flex-col gap-6">
                <ClockTree :tree="clocks.tree" />
                <section aria-label="Derived rates">
                    <h2 class="heading">Derived rates</h2>
                    <p v-if="clocks.rates.length === 0" class="mt-2 text-soft">
                        No block derives a rate from its clock.
                    </p>
                    <table v-else class="mt-1 w-full text-[14px]">
                        <tbody>
                            <tr v-for="rate in clocks.rates" :key="rate.block + rate.name">
                                <td class="w-40 py-0.5">
                                    <button
                                        class="font-mono text-[13px] font-semibold hover:text-accent"
                                        @click="context.selected.value = rate.block"
                                    >
                                        {{ rate.block }}
                                    </button>
                                </td>
                                <td class="text-soft">{{ rate.name }}</td>
                                <td class="text-right font-mono text-[13px] whitespace-nowrap text-soft">
                                    {{ rate.wanted ? `requested ${rate.wanted}` : '' }}
                                </td>
                                <td class="pl-4 text-right font-mono text-[13px] whitespace-nowrap">
                                    {{ rate.actual }}
                                </td>
                                <td
                                    class="w-24 pl-3 text-right font-mono text-[13px] whitespace-nowrap"
                                    :class="rate.good ? 'text-soft' : 'font-semibold text-warn'"
                                >
                                    {{ rate.error ?? '' }}
                                </td>
                            </tr>
                        </tbody>
                    </table>
                </section>
                <section aria-label="Crossings">
                    <h2 class="heading">Crossings</h2>
                    <p v-if="clocks.crossings.length === 0" class="mt-2 text-soft">
                        Nothing crosses between clocks.
                    </p>
                    <ul v-else class="mt-1 text-[14px]">
                        <li
                            v-for="crossing in clocks.crossings"
                            :key="crossing.sort + crossing.what"
                            class="grid grid-cols-[70px_1fr] gap-x-2 py-0.5"
                        >
                            <span class="text-soft">{{ crossing.sort }}</span>
                            <span>
                                {{ crossing.what
                                }}<template v-if="crossing.from"
                                    >, {{ crossing.from }} → {{ crossing.to }}</template
                                >
                                <span
                                    class="block text-[13px]"
                                    :class="crossing.by ? 'text-soft' : 'font-semibold text-error'"
                                    >{{ crossing.by ?? 'not safe: nothing synchronises it' }}</span
                                >
                            </span>
                        </li>
                    </ul>
                </section>
                <section aria-label="Resets">
                    <h2 class="heading">Resets, in the order of their release</h2>
                    <p class="mt-1 text-[13px] text-soft">
                        Each comes at once and leaves two cycles of its domain's clock after its source.
                    </p>
                    <p v-if="clocks.resets.length === 0" class="mt-2 text-soft">
                        Nothing resets a clock domain.
                    </p>
                    <table v-else class="mt-1 w-full text-[14px]">
                        <tbody>
                            <tr v-for="reset in clocks.resets" :key="reset.domain">
                                <td class="w-6 py-0.5 font-mono text-soft">{{ reset.order }}</td>
                                <td class="font-mono text-[13px]">{{ reset.source }}</td>
                                <td class="whitespace-nowrap text-soft">
                                    {{ reset.polarity ? `active ${reset.polarity}` : 'made by a block' }}
                                </td>
                                <td>
                                    {{ reset.domain }}, {{ reset.blocks }}
                                    {{ reset.blocks === 1 ? 'block' : 'blocks' }}
                                </td>
                            </tr>
                        </tbody>
                    </table>
                </section>
            </div>
            <div class="flex min-w-0 flex-col gap-6">
                <DomainInspector v-if="domain" :key="domain" :name="domain" class="sheet p-4" />
                <p v-else class="text-[13px] text-soft">
                    Choose a domain in the clock tree to rename it, change its source, reset or frequency, or
                    remove it.
                </p>
                <ClockPlanner
                    :plls="clocks.plls"
                    :domains="clocks.tree.filter((node) => node.sort === 'domain')"
                />
            </div>
        </div>
        <p v-else class="mt-24 text-center text-soft">Working out the clocks…</p>
    </div>
</template>
