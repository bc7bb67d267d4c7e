<script setup lang="ts">
import { XMarkIcon } from '@heroicons/vue/20/solid'
import { dismiss, notices } from './notices'
</script>

<template>
    <div class="fixed bottom-14 left-4 z-50 flex w-96 flex-col gap-2" role="status" aria-live="polite">
        <div
            v-for="notice in notices"
            :key="notice.id"
            class="sheet flex items-start gap-2 p-3 shadow-lg"
            :class="notice.kind === 'problem' ? 'border-error' : 'border-accent'"
        >
            <div class="min-w-0 flex-1">
                <p class="break-words">
                    <span
                        class="font-semibold"
                        :class="notice.kind === 'problem' ? 'text-error' : 'text-accent'"
                        >{{ notice.text ? `${notice.title}:` : notice.title }}</span
                    >
                    {{ notice.text }}
                </p>
            </div>
            <button class="text-soft hover:text-ink" aria-label="Close message" @click="dismiss(notice.id)">
                <XMarkIcon class="size-5" />
            </button>
        </div>
    </div>
</template>
