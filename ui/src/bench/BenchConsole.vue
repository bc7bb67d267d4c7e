<script setup lang="ts">
import '@xterm/xterm/css/xterm.css'
import { FitAddon } from '@xterm/addon-fit'
import { Terminal } from '@xterm/xterm'
import { onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { theme } from '../frame/theme'

const props = defineProps<{ loaded: boolean }>()
const emit = defineEmits<{ type: [text: string] }>()
const host = ref<HTMLElement>()
let terminal: Terminal | undefined
let observer: ResizeObserver | undefined

function colours() {
    const style = window.getComputedStyle(document.documentElement)
    const value = (name: string): string => style.getPropertyValue(name).trim()
    return {
        background: value('--sheet'),
        foreground: value('--ink'),
        cursor: value('--accent'),
        selectionBackground: value('--accent-soft'),
    }
}

onMounted(() => {
    if (!host.value) {
        return
    }
    terminal = new Terminal({
        fontFamily: "'IBM Plex Mono', monospace",
        fontSize: 13,
        cursorBlink: true,
        screenReaderMode: true,
        scrollback: 5000,
        theme: colours(),
    })
    const fit = new FitAddon()
    terminal.loadAddon(fit)
    terminal.open(host.value)
    // A terminal takes the Tab key; behind Escape it goes on to what comes next, as everywhere else.
    let leaves = false
    terminal.attachCustomKeyEventHandler((event) => {
        const goes = event.key === 'Tab' && leaves
        if (event.type === 'keydown' && event.key !== 'Shift') {
            leaves = event.key === 'Escape'
        }
        return !goes
    })
    terminal.onData((text) => emit('type', text))
    observer = new ResizeObserver(() => fit.fit())
    observer.observe(host.value)
})
onBeforeUnmount(() => {
    observer?.disconnect()
    terminal?.dispose()
})
watch(theme, () => {
    if (terminal) {
        terminal.options.theme = colours()
    }
})

/** Shows what the console said; fresh text takes the place of all before. */
function say(text: string, fresh: boolean): void {
    if (fresh) {
        terminal?.reset()
    }
    // The text holds one byte a character; the terminal puts UTF-8 together, also across frames.
    terminal?.write(Uint8Array.from(text, (character) => character.charCodeAt(0)))
}
defineExpose({ say })
</script>

<template>
    <section class="sheet flex min-h-[220px] flex-1 flex-col overflow-hidden" aria-label="Console">
        <div class="flex justify-between border-b border-line px-3 py-1 text-[13px]">
            <h2 class="font-semibold">Console</h2>
            <span class="text-soft">{{
                props.loaded ? 'click and type; Esc, then Tab leaves it' : 'load a program to hear from it'
            }}</span>
        </div>
        <div ref="host" class="min-h-0 flex-1 px-2 py-1" data-testid="console"></div>
    </section>
</template>
