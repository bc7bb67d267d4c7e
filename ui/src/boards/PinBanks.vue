<script setup lang="ts">
import type { DeviceChoice } from '../api/client'
import { copy } from '../frame/notices'

/** The pins of a device by bank, with what the board has on them. */
const props = defineProps<{
    device: DeviceChoice
    used: Map<string, string>
    /** Supplies that the board sets, by bank. */
    voltages: Record<string, string> | undefined
    wrong: (at: string) => string
}>()
const emit = defineEmits<{ voltages: [voltages: Record<string, string> | undefined] }>()

function set(bank: DeviceChoice['banks'][number], voltage: string): void {
    const others = Object.entries(props.voltages ?? {}).filter(([name]) => name !== bank.name)
    const all = voltage === bank.voltage ? others : [...others, [bank.name, voltage] as [string, string]]
    emit('voltages', all.length ? Object.fromEntries(all.sort()) : undefined)
}
</script>

<template>
    <aside class="w-[290px] shrink-0 overflow-auto border-l border-line bg-sheet p-4" aria-label="Pins">
        <h2 class="font-semibold">Pins of {{ device.name }}</h2>
        <p class="text-[13px] text-soft">Taken ones are filled. Click a free one to copy it.</p>
        <section v-for="bank in device.banks" :key="bank.name" class="mt-3">
            <h3 class="heading flex items-center justify-between">
                Bank {{ bank.name }}
                <select
                    class="input !py-0 normal-case"
                    :aria-label="`Supply of bank ${bank.name}`"
                    :value="voltages?.[bank.name] ?? bank.voltage"
                    @change="set(bank, ($event.target as HTMLSelectElement).value)"
                >
                    <option v-for="each in device.voltages" :key="each" :value="each">
                        {{ each }}{{ each === bank.voltage ? ', default' : '' }}
                    </option>
                </select>
            </h3>
            <p v-if="wrong(`/voltages/${bank.name}`)" class="text-[13px] text-error">
                {{ wrong(`/voltages/${bank.name}`) }}
            </p>
            <div class="mt-1 grid grid-cols-8 gap-0.5">
                <button
                    v-for="pin in bank.pins"
                    :key="pin"
                    type="button"
                    class="rounded border px-0.5 text-center font-mono text-[11px]"
                    :class="
                        used.has(pin)
                            ? 'border-accent bg-accent-soft text-ink'
                            : 'border-line text-soft hover:border-accent hover:text-accent'
                    "
                    :title="used.get(pin) ?? `${pin} is free`"
                    @click="copy(pin)"
                >
                    {{ pin }}
                </button>
            </div>
        </section>
    </aside>
</template>
