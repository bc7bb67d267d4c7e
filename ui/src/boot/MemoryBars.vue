<script setup lang="ts">
import type { ImageView } from '../api/client'
import { copy } from '../frame/notices'

defineProps<{ memories: ImageView['memories'] }>()
const percent = (part: number, whole: number): string => `${((100 * part) / whole).toFixed(2)}%`
</script>

<template>
    <section v-for="memory in memories" :key="memory.name">
        <h2 class="heading">{{ memory.name }}</h2>
        <p class="mt-1 text-[13px] text-soft">
            {{ memory.size }} from <span class="font-mono">{{ memory.base }}</span>
        </p>
        <div
            class="mt-1 flex h-7 overflow-hidden rounded border border-line bg-sheet"
            role="img"
            :aria-label="`${memory.loadedBytes} bytes loaded, ${memory.zeroBytes} zeroed, of ${memory.sizeBytes}`"
        >
            <div class="bg-accent" :style="{ width: percent(memory.loadedBytes, memory.sizeBytes) }"></div>
            <div
                class="border-l border-sheet bg-[repeating-linear-gradient(45deg,var(--accent)_0_2px,transparent_2px_6px)]"
                :style="{
                    width: percent(memory.zeroBytes, memory.sizeBytes),
                    minWidth: memory.zeroBytes ? '3px' : '0',
                }"
            ></div>
        </div>
        <p class="mt-1 flex flex-wrap gap-x-5 text-[13px]">
            <span>
                <span class="mr-1 inline-block size-2.5 bg-accent"></span>loaded
                <span class="font-mono">{{ memory.loadedBytes.toLocaleString('en') }} B</span>
            </span>
            <span>
                <span
                    class="mr-1 inline-block size-2.5 bg-[repeating-linear-gradient(45deg,var(--accent)_0_2px,transparent_2px_4px)]"
                ></span
                >zeroed <span class="font-mono">{{ memory.zeroBytes.toLocaleString('en') }} B</span>
            </span>
            <span>
                free
                <span class="font-mono"
                    >{{
                        (memory.sizeBytes - memory.loadedBytes - memory.zeroBytes).toLocaleString('en')
                    }}
                    B</span
                >
            </span>
            <button
                v-if="memory.crc32"
                class="text-soft hover:text-accent"
                title="Copy"
                @click="copy(memory.crc32)"
            >
                CRC-32 <span class="font-mono">{{ memory.crc32 }}</span>
            </button>
        </p>
    </section>
</template>
