<script setup lang="ts">
import { computed, ref } from 'vue'
import type { InitiatorView, PlatformView } from '../api/client'
import { usePlatform } from '../frame/platform'
import { useRowsInSight } from '../frame/rowsInSight'
import { vScrolls } from '../frame/scrolls'

const props = defineProps<{ platform: PlatformView }>()
const context = usePlatform()
const initiators = computed(() =>
    props.platform.buses
        .flatMap((bus) => bus.initiators)
        .filter((each) => !each.bridge)
        .map((each) => ({ ...each, reached: new Set(each.reaches), kept: new Set(each.hidden) })),
)
/** Everything that one of them reaches or could reach, in the order of the buses. */
const targets = computed(() => {
    const known = new Set(initiators.value.flatMap((each) => [...each.reaches, ...each.hidden]))
    return props.platform.buses
        .flatMap((bus) => bus.slots.flatMap((slot) => (slot.target ? [slot.target] : [])))
        .map((target) => ({ ...target, ref: `${target.block}.${target.busInterface}` }))
        .filter((target) => known.has(target.ref))
})

const body = ref<HTMLElement | null>(null)
const ROW = 30
const part = useRowsInSight(
    body,
    () => targets.value,
    () => ROW,
)

function set(initiator: InitiatorView, ref: string, reached: boolean): void {
    const [target = '', targetInterface = ''] = ref.split('.')
    void context.edit({
        edit: 'set-reach',
        block: initiator.block,
        busInterface: initiator.busInterface,
        target,
        targetInterface,
        reached,
    })
}
</script>

<template>
    <section v-if="initiators.length" aria-label="Access matrix">
        <h2 class="text-lg font-semibold">Access matrix</h2>
        <p class="text-[13px] text-soft">
            Take a mark away to hide a target from an initiator. A dash: the buses do not lead there, or an
            instruction side has nothing to fetch.
        </p>
        <div v-scrolls class="overflow-x-auto">
            <table class="sheet mt-1 w-full border-separate border-spacing-0">
                <thead>
                    <tr class="table-head">
                        <th scope="col" class="px-3 py-1.5">Target</th>
                        <th
                            v-for="each in initiators"
                            :key="each.label"
                            scope="col"
                            class="px-3 py-1.5 normal-case"
                        >
                            {{ each.label }}
                        </th>
                    </tr>
                </thead>
                <tbody ref="body">
                    <tr v-if="part.above" :style="{ height: `${part.above}px` }"></tr>
                    <tr v-for="target in part.rows" :key="target.ref" :style="{ height: `${ROW}px` }">
                        <th scope="row" class="border-t border-line px-3 py-0.5 text-left font-semibold">
                            {{ target.label }}
                        </th>
                        <td
                            v-for="each in initiators"
                            :key="each.label"
                            class="border-t border-line px-3 py-0.5"
                        >
                            <input
                                v-if="each.reached.has(target.ref) || each.kept.has(target.ref)"
                                type="checkbox"
                                class="size-4 accent-[var(--accent)]"
                                :checked="each.reached.has(target.ref)"
                                :aria-label="`${each.label} reaches ${target.label}`"
                                @change="set(each, target.ref, !each.reached.has(target.ref))"
                            />
                            <span v-else class="text-soft">—</span>
                        </td>
                    </tr>
                    <tr v-if="part.below" :style="{ height: `${part.below}px` }"></tr>
                </tbody>
            </table>
        </div>
    </section>
</template>
