<script setup lang="ts">
import type { DeviceChoice } from '../api/client'
import { copy } from '../frame/notices'

/** The pins of a device by bank, with what the board has on them. */
defineProps<{ device: DeviceChoice; used: Map<string, string> }>()
</script>

<template>
    <aside class="w-[290px] shrink-0 overflow-auto border-l border-line bg-sheet p-4" aria-label="Pins">
        <h2 class="font-semibold">Pins of {{ device.name }}</h2>
        <p class="text-[13px] text-soft">Taken ones are filled. Click a free one to copy it.</p>
        <section v-for="bank in device.banks" :key="bank.name" class="mt-3">
            <h3 class="heading">{{ bank.name }} · {{ bank.voltage }}</h3>
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
