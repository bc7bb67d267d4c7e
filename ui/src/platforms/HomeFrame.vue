<script setup lang="ts">
import { MoonIcon, SunIcon } from '@heroicons/vue/20/solid'
import { useRoute } from 'vue-router'
import { theme, toggleTheme } from '../frame/theme'

defineProps<{ wide?: boolean }>()
const route = useRoute()
const sections = [
    { path: '/', name: 'Platforms' },
    { path: '/library', name: 'Library' },
    { path: '/boards', name: 'Boards' },
]
/** Block types of one's own are edited within the library. */
const isAt = (path: string): boolean =>
    path === '/library' && route.path.startsWith('/blocks')
        ? true
        : path === '/'
          ? !route.path.startsWith('/blocks') &&
            !sections.some((each) => each.path !== '/' && route.path.startsWith(each.path))
          : route.path.startsWith(path)
</script>

<template>
    <div class="flex h-full flex-col">
        <header class="flex h-12 items-center gap-3 border-b border-line bg-sheet px-4">
            <RouterLink to="/" class="flex items-center gap-2 text-lg font-semibold">
                <svg viewBox="0 0 20 20" class="size-5 text-accent" aria-hidden="true">
                    <path fill="currentColor" d="M1 3h4v14H1zM8 8h4v9H8zM15 11h4v6h-4z" />
                </svg>
                Polymetron
            </RouterLink>
            <nav class="ml-6 flex h-full items-stretch gap-5" aria-label="Sections">
                <RouterLink
                    v-for="section in sections"
                    :key="section.path"
                    :to="section.path"
                    class="flex items-center border-b-2 border-transparent hover:text-accent"
                    :class="isAt(section.path) ? '!border-accent font-semibold text-accent' : ''"
                >
                    {{ section.name }}
                </RouterLink>
            </nav>
            <span class="flex-1"></span>
            <button
                class="text-soft hover:text-ink"
                :aria-label="theme === 'light' ? 'Dark colours' : 'Light colours'"
                @click="toggleTheme"
            >
                <MoonIcon v-if="theme === 'light'" class="size-5" />
                <SunIcon v-else class="size-5" />
            </button>
        </header>
        <main class="min-h-0 flex-1 overflow-auto">
            <slot v-if="wide" />
            <div v-else class="mx-auto max-w-5xl px-6 py-8"><slot /></div>
        </main>
    </div>
</template>
