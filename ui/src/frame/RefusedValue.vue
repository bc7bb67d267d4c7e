<script setup lang="ts">
/** Why a typed value was refused, beneath the field that still holds it. */
defineProps<{ reason?: string; id: string }>()
</script>

<template>
    <p v-if="reason" :id="id" class="py-0.5 text-[13px] break-words text-error" role="alert">{{ reason }}</p>
</template>
