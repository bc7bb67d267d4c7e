<script setup lang="ts">
import { naming } from './naming'
import type { Selection } from './selection'

defineProps<{ selection: Selection }>()
</script>

<template>
    <aside
        class="flex w-[336px] shrink-0 max-[1000px]:w-[270px] flex-col gap-4 overflow-y-auto border-l border-line bg-sheet p-4"
        aria-label="Inspector"
    >
        <h2 class="px-1 text-xl font-semibold">{{ selection.names.value.length }} blocks</h2>
        <ul class="px-1">
            <li v-for="name in selection.names.value" :key="name" class="py-0.5">{{ name }}</li>
        </ul>
        <div class="flex flex-wrap gap-2">
            <button class="button" title="Copy (Ctrl C)" @click="selection.copy">Copy</button>
            <button class="button" title="Duplicate (Ctrl D)" @click="selection.duplicate">Duplicate…</button>
            <button class="button" title="Group (g)" @click="naming.group = [...selection.names.value]">
                Group…
            </button>
            <button class="button !text-error" title="Remove (Del)" @click="selection.remove">Remove</button>
        </div>
        <p class="text-[13px] text-soft">
            Click with Ctrl or Shift to take a block in or out. Copies go into any platform with Ctrl V.
        </p>
    </aside>
</template>
