<script setup lang="ts">
import { computed, ref } from 'vue'
import type { AddressesView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useRowsInSight } from '../frame/rowsInSight'
import { onBus } from './softwareAddress'

const props = defineProps<{ free: AddressesView['free']; reserved: AddressesView['reserved'] }>()
const context = usePlatform()
const body = ref<HTMLElement | null>(null)
const ROW = 24
const gaps = useRowsInSight(
    body,
    () => props.free,
    () => ROW,
)

/** The addresses that software uses: on a bus behind a bridge others than on the bus itself. */
const shown = <T extends { software?: { base: string; last: string } | null }>(range: T) =>
    range.software ?? (range as T & { base: string; last: string })
/** A range of each bus behind a bridge, to tell what software adds to its addresses. */
const seen = computed(
    () =>
        new Map(
            [...props.free, ...props.reserved]
                .filter((range) => range.software)
                .map((range) => [range.bus, range]),
        ),
)

const buses = computed(() => context.platform.value?.buses.map((bus) => bus.name) ?? [])
const form = ref<{ bus: string; name: string; base: string; last: string }>()

function begin(gap?: AddressesView['free'][number]): void {
    form.value = {
        bus: gap?.bus ?? buses.value[0] ?? '',
        name: '',
        base: gap ? shown(gap).base : '',
        last: gap ? shown(gap).last : '',
    }
}

async function reserve(): Promise<void> {
    if (!form.value) {
        return
    }
    const range = seen.value.get(form.value.bus)
    const base = onBus(range, form.value.base)
    const last = onBus(range, form.value.last)
    if (await context.edit({ edit: 'reserve', ...form.value, base, last })) {
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
                    <td class="font-mono text-[13px]">{{ shown(each).base }} – {{ shown(each).last }}</td>
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
                    <td class="pr-2 font-mono text-[13px]">{{ shown(gap).base }}</td>
                    <td class="pr-6 font-mono text-[13px]">– {{ shown(gap).last }}</td>
                    <td class="text-right font-mono text-[13px]">{{ gap.size }}</td>
                    <td class="pl-4">
                        <button class="text-[13px] text-accent hover:underline" @click="begin(gap)">
                            Reserve…
                        </button>
                    </td>
                    <td class="pl-4 text-[12px] text-soft">
                        {{ gap.software ? `offset ${gap.base}` : '' }}
                    </td>
                </tr>
                <tr v-if="gaps.below" :style="{ height: `${gaps.below}px` }"></tr>
            </tbody>
        </table>
    </section>
</template>
