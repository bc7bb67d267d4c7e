<script setup lang="ts">
import { ref } from 'vue'
import type { TextFile } from './ownBlock'
import { vTyped } from '../frame/typedText'

const files = defineModel<TextFile[]>({ required: true })
const props = defineProps<{
    title: string
    accept: string
    /** A file to begin with, where none of the name is there. */
    offer?: { name: string; text: string }
    offerTitle: string
    wrong: (file: string) => string[]
}>()
const open = ref<string>()

function put(name: string, text: string): void {
    const lines = text.replaceAll('\r\n', '\n').replace(/\n$/, '').split('\n')
    const old = files.value.find((each) => each.name === name)
    if (old) {
        old.lines = lines
    } else {
        files.value.push({ name, lines })
        files.value.sort((one, other) => one.name.localeCompare(other.name))
    }
    open.value = name
}

async function take(list: FileList | null | undefined): Promise<void> {
    for (const file of list ?? []) {
        put(file.name, await file.text())
    }
}

function chosen(event: Event): void {
    const input = event.target as HTMLInputElement
    void take(input.files).then(() => (input.value = ''))
}

function edit(file: TextFile, event: Event): void {
    file.lines = (event.target as HTMLTextAreaElement).value.replace(/\n$/, '').split('\n')
}
</script>

<template>
    <section :aria-label="title" @dragover.prevent @drop.prevent="void take($event.dataTransfer?.files)">
        <div class="flex items-center gap-2">
            <h3 class="grow text-[13px] font-semibold">{{ title }}</h3>
            <button
                v-if="offer && !files.some((each) => each.name === offer?.name)"
                class="button !py-0.5 text-[13px]"
                @click="put(offer.name, offer.text)"
            >
                {{ offerTitle }}
            </button>
            <label
                class="button cursor-pointer !py-0.5 text-[13px] focus-within:outline focus-within:outline-2"
            >
                Add files …
                <input
                    type="file"
                    multiple
                    class="sr-only"
                    :accept="accept"
                    :aria-label="`Add ${title}`"
                    @change="chosen"
                />
            </label>
        </div>
        <p v-if="!files.length" class="mt-1 text-[13px] text-soft">None yet. Files can be dropped here.</p>
        <div v-for="file in files" :key="file.name" class="mt-1">
            <div class="flex items-center gap-2">
                <button
                    class="font-mono text-[13px] text-accent hover:underline"
                    :aria-expanded="open === file.name"
                    @click="open = open === file.name ? undefined : file.name"
                >
                    {{ file.name }}
                </button>
                <span class="text-[12px] text-soft">{{ file.lines.length }} lines</span>
                <span class="grow" />
                <button
                    class="px-1 text-soft hover:text-error"
                    :aria-label="`Remove ${file.name}`"
                    @click="files.splice(files.indexOf(file), 1)"
                >
                    ✕
                </button>
            </div>
            <p v-for="each in props.wrong(file.name)" :key="each" class="text-[13px] text-error" role="alert">
                {{ each }}
            </p>
            <textarea
                v-if="open === file.name"
                v-typed="file.lines.join('\n')"
                class="input mt-1 h-72 w-full font-mono text-[12px] leading-[16px]"
                spellcheck="false"
                wrap="off"
                :aria-label="`Text of ${file.name}`"
                @change="edit(file, $event)"
            />
        </div>
    </section>
</template>
