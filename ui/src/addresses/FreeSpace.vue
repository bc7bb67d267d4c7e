<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AddressesView } from '../api/client'
import { addressText } from '../frame/bareDigits'
import { usePlatform } from '../frame/platform'
import { useRowsInSight } from '../frame/rowsInSight'

const props = defineProps<{ free: AddressesView['free']; reserved: AddressesView['reserved'] }>()
const context = usePlatform()
const body = ref<HTMLElement | null>(null)
const ROW = 24
const gaps = useRowsInSight(
    body,
    () => props.free,
    () => ROW,
)

/** What software adds to the addresses of a bus behind a bridge, by bus. */
const windows = computed(
    () =>
        new Map(
            (context.platform.value?.buses ?? []).flatMap((bus): [string, bigint][] => {
                const target = bus.slots.find((slot) => slot.target?.software && slot.target.base)?.target
                return target?.software
                    ? [[bus.name, number(target.software.base) - number(target.base ?? '0')]]
                    : []
            }),
        ),
)
function number(address: string): bigint {
    return BigInt(address.replaceAll('_', ''))
}
function asSoftware(gap: AddressesView['free'][number], address: string): string {
    const window = windows.value.get(gap.bus)
    return window === undefined ? address : addressText(number(address) + window)
}

const buses = computed(() => context.platform.value?.buses.map((bus) => bus.name) ?? [])
const form = ref<{ bus: string; name: string; base: string; last: string }>()

function begin(gap?: AddressesView['free'][number]): void {
    form.value = {
        bus: gap?.bus ?? buses.value[0] ?? '',
        name: '',
        base: gap?.base ?? '',
        last: gap?.last ?? '',
    }
}

async function reserve(): Promise<void> {
    if (form.value && (await context.edit({ edit: 'reserve', ...form.value }))) {
        form.value = undefined
    }
}
</script>

<template>
    <section aria-label="Free space">
        <div class="flex items-end justify-between">
            <h2 class="text-lg font-semibold">Free space</h2>
            <button class="button" @click="begin()">Reserve addresses…</button>
        </div>
        <form v-if="form" class="sheet mt-2 flex flex-wrap items-end gap-2 p-3" @submit.prevent="reserve">
            <label class="grid text-[13px]">
                Bus
                <select v-model="form.bus" class="input">
                    <option v-for="bus in buses" :key="bus">{{ bus }}</option>
                </select>
            </label>
            <label class="grid text-[13px]">
                First
                <input
                    v-model="form.base"
                    class="input w-28 font-mono text-[13px]"
                    spellcheck="false"
                    required
                />
            </label>
            <label class="grid text-[13px]">
                Last
                <input
                    v-model="form.last"
                    class="input w-28 font-mono text-[13px]"
                    spellcheck="false"
                    required
                />
            </label>
            <label class="grid flex-1 text-[13px]">
                Kept for
                <input v-model="form.name" class="input" maxlength="80" required />
            </label>
            <button class="button-main">Reserve</button>
            <button type="button" class="button" @click="form = undefined">Cancel</button>
        </form>
        <table v-if="reserved.length" class="mt-2 w-full text-[14px]">
            <tbody>
                <tr v-for="each in reserved" :key="each.bus + each.name">
                    <td class="pr-4 text-soft">{{ each.bus }}</td>
                    <td class="font-mono text-[13px]">{{ each.base }} – {{ each.last }}</td>
                    <td class="text-right font-mono text-[13px]">{{ each.size }}</td>
                    <td class="pl-4">reserved for {{ each.name }}</td>
                    <td class="text-right">
                        <button
                            class="button !py-0"
                            :aria-label="`No longer reserve addresses for ${each.name}`"
                            @click="context.edit({ edit: 'unreserve', bus: each.bus, name: each.name })"
                        >
                            Free
                        </button>
                    </td>
                </tr>
            </tbody>
        </table>
        <p v-if="free.length === 0" class="mt-1 text-soft">Nothing is free on any bus.</p>
        <table class="mt-2 text-[14px]">
            <tbody ref="body">
                <tr v-if="gaps.above" :style="{ height: `${gaps.above}px` }"></tr>
                <tr v-for="gap in gaps.rows" :key="gap.bus + gap.base" :style="{ height: `${ROW}px` }">
                    <td class="pr-6 text-soft">{{ gap.bus }}</td>
                    <td class="pr-2 font-mono text-[13px]">{{ asSoftware(gap, gap.base) }}</td>
                    <td class="pr-6 font-mono text-[13px]">– {{ asSoftware(gap, gap.last) }}</td>
                    <td class="text-right font-mono text-[13px]">{{ gap.size }}</td>
                    <td class="pl-4">
                        <button class="text-[13px] text-accent hover:underline" @click="begin(gap)">
                            Reserve…
                        </button>
                    </td>
                    <td class="pl-4 text-[12px] text-soft">
                        {{ windows.has(gap.bus) ? `offset ${gap.base}` : '' }}
                    </td>
                </tr>
                <tr v-if="gaps.below" :style="{ height: `${gaps.below}px` }"></tr>
            </tbody>
        </table>
    </section>
</template>
