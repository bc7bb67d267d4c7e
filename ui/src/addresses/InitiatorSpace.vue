<script setup lang="ts">
import { cyclesText } from '../compose/seenBy'
import { ref, watch } from 'vue'
import AddressField from '../compose/AddressField.vue'
import { useInitiatorSpace } from '../frame/initiatorSpace'
import { usePlatform } from '../frame/platform'
import { useRowsInSight } from '../frame/rowsInSight'

const props = defineProps<{ names: string[]; initiators: string[] }>()
const context = usePlatform()
const initiator = ref('')
watch(
    () => [props.initiators, context.selected.value] as const,
    ([all, selected]) => {
        const own = all.find((each) => each.split('.')[0] === selected)
        if (own !== undefined) {
            initiator.value = own
        } else if (!all.includes(initiator.value)) {
            initiator.value = all[0] ?? ''
        }
    },
    { immediate: true },
)
const { data: space } = useInitiatorSpace(context, () => initiator.value || undefined)

const body = ref<HTMLElement | null>(null)
const ROW = 44
const seen = useRowsInSight(
    body,
    () => space.value?.seen ?? [],
    () => ROW,
)

function setTraffic(text: string): Promise<true | string> {
    const [block = '', busInterface = ''] = initiator.value.split('.')
    const megabytes = Number(text.replace(',', '.'))
    if (!Number.isFinite(megabytes) || megabytes < 0) {
        return Promise.resolve('Write a number of MB/s, such as 48 or 0.5; empty for nothing said.')
    }
    return context.tryEdit({
        edit: 'set-traffic',
        block,
        busInterface,
        ...(text.trim() === '' ? {} : { traffic: Math.round(megabytes * 1e6) }),
    })
}
</script>

<template>
    <section aria-label="What one initiator sees">
        <p v-if="initiators.length === 0" class="text-soft">No initiator is on a bus.</p>
        <template v-else>
            <div class="flex flex-wrap items-center gap-x-6 gap-y-1">
                <label class="flex items-center gap-2">
                    <span class="font-semibold">Seen by</span>
                    <select v-model="initiator" class="input">
                        <option v-for="(each, at) in initiators" :key="each" :value="each">
                            {{ names[at] }}
                        </option>
                    </select>
                </label>
                <label v-if="space" class="flex items-center gap-2">
                    <span>required bandwidth</span>
                    <span class="w-24">
                        <AddressField
                            hide-label
                            label="Required bandwidth in MB/s"
                            :value="space.traffic ? String(space.traffic / 1e6) : ''"
                            placeholder="not specified"
                            :write="setTraffic"
                        />
                    </span>
                    <span>MB/s</span>
                </label>
            </div>
            <p v-if="space?.seen.length === 0" class="mt-3 text-soft">It sees nothing.</p>
            <table v-else class="sheet mt-2 w-full border-separate border-spacing-0 text-[14px]">
                <thead>
                    <tr class="table-head">
                        <th scope="col" class="px-3 py-1.5">Target</th>
                        <th scope="col" class="px-2 py-1.5">Seen at</th>
                        <th scope="col" class="px-2 py-1.5 text-right">Size</th>
                        <th scope="col" class="px-2 py-1.5">Way</th>
                        <th scope="col" class="px-2 py-1.5 text-right">Read</th>
                        <th scope="col" class="px-2 py-1.5 text-right">At worst</th>
                        <th v-if="(space?.burst ?? 1) > 1" scope="col" class="px-3 py-1.5 text-right">
                            Burst of {{ space?.burst }}
                        </th>
                    </tr>
                </thead>
                <tbody ref="body">
                    <tr v-if="seen.above" :style="{ height: `${seen.above}px` }"></tr>
                    <tr
                        v-for="each in seen.rows"
                        :key="each.label + each.base"
                        :style="{ height: `${ROW}px` }"
                        :class="context.selected.value === each.block ? 'bg-accent-soft' : ''"
                    >
                        <td class="border-t border-line px-3 py-0.5">
                            <button
                                class="text-left font-semibold hover:text-accent"
                                @click="context.selected.value = each.block"
                            >
                                {{ each.label }}
                            </button>
                            <span
                                v-if="each.elsewhere.length"
                                class="block text-[12px] font-semibold text-warn"
                                :title="`A pointer to ${each.label} means something else there`"
                                >also {{ each.elsewhere.join('; ') }}</span
                            >
                        </td>
                        <td class="border-t border-line px-2 py-0.5 font-mono text-[13px] whitespace-nowrap">
                            <span :title="`${each.base} – ${each.last}`">{{ each.base }}</span>
                            <span v-if="each.own" class="block text-[12px] text-soft"
                                >{{ each.own }} there</span
                            >
                        </td>
                        <td
                            class="border-t border-line px-2 py-0.5 text-right font-mono text-[13px] whitespace-nowrap"
                        >
                            {{ each.size }}
                        </td>
                        <td class="border-t border-line px-2 py-0.5 text-[13px]">
                            <span class="line-clamp-2">{{ each.path.join(' → ') }}</span>
                        </td>
                        <td
                            class="border-t border-line px-2 py-0.5 text-right font-mono text-[13px]"
                            :title="each.steps.join('\n')"
                        >
                            {{ cyclesText(each.leastCycles, each.cycles) }}
                        </td>
                        <td
                            class="border-t border-line px-2 py-0.5 text-right font-mono text-[13px] whitespace-nowrap"
                            :class="each.worstCycles == null ? 'font-semibold text-warn' : ''"
                        >
                            {{ each.worstCycles ?? 'no limit' }}
                        </td>
                        <td
                            v-if="(space?.burst ?? 1) > 1"
                            class="border-t border-line px-3 py-0.5 text-right font-mono text-[13px]"
                        >
                            {{ each.burstCycles }}
                        </td>
                    </tr>
                    <tr v-if="seen.below" :style="{ height: `${seen.below}px` }"></tr>
                </tbody>
            </table>
            <p class="mt-1 text-[13px] text-soft">
                Reads in cycles of its clock while no other initiator is on the way, as the hardware takes
                them: a range where a clock is crossed. Hover over a number to see its parts. At worst: a
                single read or write while all others keep the way busy; there is no limit where priority lets
                others go first.
            </p>
        </template>
    </section>
</template>
