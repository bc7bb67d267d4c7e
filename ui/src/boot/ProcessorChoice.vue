<script setup lang="ts">
/** Which processor a program is for, where a platform has several. */
defineProps<{ processors: string[]; processor: string | undefined }>()
const emit = defineEmits<{ choose: [processor: string] }>()
</script>

<template>
    <label v-if="processors.length > 1" class="flex items-center gap-2">
        <span class="text-soft">Processor</span>
        <select
            class="input !py-1"
            :value="processor"
            @change="emit('choose', ($event.target as HTMLSelectElement).value)"
        >
            <option v-for="each in processors" :key="each" :value="each">{{ each }}</option>
        </select>
    </label>
</template>
