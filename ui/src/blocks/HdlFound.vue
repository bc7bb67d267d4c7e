<script setup lang="ts">
import type { HdlFoundView } from '../api/client'

defineProps<{ found: HdlFoundView }>()
defineEmits<{ choose: [module: string] }>()
</script>

<template>
    <section class="sheet mb-4 p-3" aria-label="What the files have">
        <div class="flex items-center gap-3">
            <h2 class="grow text-[13px] font-semibold">Roles of the ports of {{ found.module }}</h2>
            <label v-if="found.modules.length > 1" class="text-[13px]">
                module
                <select
                    class="input ml-1 font-mono"
                    :value="found.module"
                    @change="$emit('choose', ($event.target as HTMLSelectElement).value)"
                >
                    <option v-for="each in found.modules" :key="each">{{ each }}</option>
                </select>
            </label>
        </div>
        <table class="mt-1 w-full text-[13px]">
            <thead>
                <tr class="table-head">
                    <th scope="col">port</th>
                    <th scope="col">role</th>
                    <th scope="col">why</th>
                </tr>
            </thead>
            <tbody>
                <tr v-for="each in found.reasons" :key="each.port" class="border-b border-line">
                    <td class="py-0.5 pr-3 font-mono">{{ each.port }}</td>
                    <td class="pr-3" :class="each.became ? '' : 'text-warn'">
                        {{ each.became || 'unassigned' }}
                    </td>
                    <td class="text-soft">{{ each.why }}</td>
                </tr>
            </tbody>
        </table>
        <p class="mt-2 text-[13px] text-soft">
            Correct a wrong proposal in the tables below and in the module {{ found.module }}_fitted, which
            connects the one to the other.
        </p>
    </section>
</template>
