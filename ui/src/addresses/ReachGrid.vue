<script setup lang="ts">
import { computed } from 'vue'
import type { InitiatorView, PlatformView } from '../api/client'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ platform: PlatformView }>()
const context = usePlatform()
const initiators = computed(() =>
    props.platform.buses.flatMap((bus) => bus.initiators).filter((each) => !each.bridge),
)
/** Everything that one of them reaches or could reach, in the order of the buses. */
const targets = computed(() => {
    const known = new Set(initiators.value.flatMap((each) => [...each.reaches, ...each.hidden]))
    return props.platform.buses
        .flatMap((bus) => bus.slots.flatMap((slot) => (slot.target ? [slot.target] : [])))
        .map((target) => ({ ...target, ref: `${target.block}.${target.busInterface}` }))
        .filter((target) => known.has(target.ref))
})

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
    <section v-if="initiators.length" aria-label="Who reaches what">
        <h2 class="text-lg font-semibold">Who reaches what</h2>
        <p class="text-[13px] text-soft">
            Take a mark away to hide a target from an initiator. A dash: the buses do not lead there, or an
            instruction side has nothing to fetch.
        </p>
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
            <tbody>
                <tr v-for="target in targets" :key="target.ref">
                    <th scope="row" class="border-t border-line px-3 py-0.5 text-left font-semibold">
                        {{ target.label }}
                    </th>
                    <td v-for="each in initiators" :key="each.label" class="border-t border-line px-3 py-0.5">
                        <input
                            v-if="each.reaches.includes(target.ref) || each.hidden.includes(target.ref)"
                            type="checkbox"
                            class="size-4 accent-[var(--accent)]"
                            :checked="each.reaches.includes(target.ref)"
                            :aria-label="`${each.label} reaches ${target.label}`"
                            @change="set(each, target.ref, !each.reaches.includes(target.ref))"
                        />
                        <span v-else class="text-soft">—</span>
                    </td>
                </tr>
            </tbody>
        </table>
    </section>
</template>
