<script setup lang="ts">
import { ref } from 'vue'
import type { BlockSheet } from '../api/client'

defineProps<{ block: BlockSheet }>()
const emit = defineEmits<{ copy: [text: string] }>()
const shown = ref<string>()
</script>

<template>
    <section>
        <h2 class="heading">Registers</h2>
        <ul>
            <li
                v-for="register in block.registers"
                :key="register.name + register.offset + register.explains"
            >
                <div
                    class="grid grid-cols-[minmax(54px,max-content)_1fr_auto_28px] items-baseline gap-1 py-0.5 text-[13px]"
                >
                    <span class="font-mono text-soft">{{ register.offset }}</span>
                    <button
                        class="truncate text-left font-mono font-semibold hover:text-accent"
                        :aria-expanded="shown === register.name"
                        @click="shown = shown === register.name ? undefined : register.name"
                    >
                        {{ register.name
                        }}{{
                            register.count > 1
                                ? `[${register.first}…${register.first + register.count - 1}]`
                                : ''
                        }}
                    </button>
                    <button
                        v-if="register.address"
                        class="font-mono hover:text-accent"
                        title="Copy the address"
                        @click="emit('copy', register.address)"
                    >
                        {{ register.address }}
                    </button>
                    <span v-else></span>
                    <span class="text-right text-[12px] text-soft">{{ register.access }}</span>
                </div>
                <div
                    v-if="shown === register.name"
                    class="mb-1 ml-[54px] border-l border-line pl-2 text-[13px]"
                >
                    <p>
                        {{ register.explains }}
                        <span class="text-soft"
                            >Reset {{ register.reset }}.
                            {{ register.condition ? `There when ${register.condition}.` : '' }}</span
                        >
                    </p>
                    <p v-for="field in register.fields" :key="field.name" class="text-soft">
                        <span class="font-mono text-ink">{{ field.bits }} {{ field.name }}</span>
                        {{ field.explains }}
                    </p>
                </div>
            </li>
        </ul>
    </section>
</template>
