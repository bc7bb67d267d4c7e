<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, client } from '../api/client'
import { copy } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import MemoryBars from './MemoryBars.vue'
import ProcessorChoice from './ProcessorChoice.vue'
import { usePrograms } from './programs'
import { sentence } from '../frame/sentence'
import { vTyped } from '../frame/typedText'

const context = usePlatform()
const { programs, program, chosen, sending, add } = usePrograms(context.id)
const fill = ref(0)
const over = ref(false)
const processor = ref<string>()
const picker = ref<HTMLInputElement>()
const programId = computed(() => program.value?.id)
const revision = computed(() => context.platform.value?.revision)
const { data: image, error } = useQuery({
    queryKey: ['image', context.id, programId, fill, processor, context.at, revision],
    queryFn: () =>
        answer(
            client.GET('/api/platforms/{id}/programs/{program}/image', {
                params: {
                    path: { id: context.id, program: programId.value ?? '' },
                    query: { fill: fill.value, processor: processor.value, at: context.at.value },
                },
            }),
        ),
    enabled: computed(() => programId.value !== undefined),
    placeholderData: (before) => before,
})

function take(files: FileList | null | undefined): void {
    over.value = false
    const file = files?.[0]
    if (file) {
        void add(file)
    }
}

function setFill(text: string): void {
    const value = Number(text)
    if (Number.isInteger(value) && value >= 0 && value <= 255) {
        fill.value = value
    }
}

const url = (name: string): string =>
    `/api/platforms/${context.id}/programs/${programId.value}/file?name=${encodeURIComponent(name)}&fill=${fill.value}${processor.value ? `&processor=${encodeURIComponent(processor.value)}` : ''}${context.at.value === undefined ? '' : `&at=${context.at.value}`}`
</script>

<template>
    <div
        class="h-full overflow-auto px-5 py-4"
        :class="{ 'bg-accent-soft': over }"
        @dragover.prevent="over = true"
        @dragleave.self="over = false"
        @drop.prevent="take($event.dataTransfer?.files)"
    >
        <div class="flex flex-wrap items-center gap-4">
            <h1 class="text-lg font-semibold">Boot image</h1>
            <label v-if="programs?.length" class="flex items-center gap-2">
                <span class="text-soft">Program</span>
                <select
                    class="input !py-1"
                    :value="program?.id"
                    @change="chosen = ($event.target as HTMLSelectElement).value"
                >
                    <option v-for="each in programs" :key="each.id" :value="each.id">
                        {{ each.name }} · {{ each.sizeBytes.toLocaleString('en') }} B
                    </option>
                </select>
            </label>
            <ProcessorChoice
                v-if="program && image"
                :processors="image.processors"
                :processor="processor ?? image.processor"
                @choose="processor = $event"
            />
            <label v-if="program" class="flex items-center gap-2">
                <span class="text-soft">Fill byte</span>
                <input
                    v-typed="fill"
                    class="input w-16 font-mono"
                    inputmode="numeric"
                    @change="setFill(($event.target as HTMLInputElement).value)"
                />
            </label>
            <span class="flex-1"></span>
            <input
                ref="picker"
                type="file"
                class="sr-only"
                tabindex="-1"
                aria-label="Program file"
                @change="take(($event.target as HTMLInputElement).files)"
            />
            <button class="button-main" :disabled="sending" @click="picker?.click()">
                {{ sending ? 'Sending…' : 'Choose a program' }}
            </button>
        </div>
        <div
            v-if="programs && !program"
            class="mt-8 rounded border-2 border-dashed border-line p-16 text-center"
        >
            <p class="text-lg font-semibold">Drop a program here</p>
            <p class="mt-1 text-soft">
                An ELF file, Intel HEX or S-record of a 32-bit RISC-V program, linked with the linker script
                of the hand-off. You see at once whether it fits.
            </p>
        </div>
        <p v-if="error" class="mt-6 text-error">{{ error.message }}</p>
        <div
            v-if="program && image"
            class="mt-5 grid grid-cols-[minmax(420px,1fr)_minmax(480px,1fr)] max-[1100px]:grid-cols-1 gap-8"
        >
            <div class="flex flex-col gap-6">
                <section
                    v-if="image.problems.length"
                    class="rounded border border-error bg-error-soft p-3"
                    role="alert"
                >
                    <h2 class="font-semibold text-error">The program does not run on this platform</h2>
                    <ul class="mt-1 list-disc pl-5">
                        <li v-for="problem in image.problems" :key="problem">{{ problem }}</li>
                    </ul>
                </section>
                <p v-if="image.mismatch" class="rounded border border-warn bg-warn-soft p-3">
                    <span class="font-semibold text-warn">Linked for other hardware.</span>
                    {{ sentence(image.mismatch) }} Build it again with the newest hand-off;
                    <RouterLink :to="`/p/${context.id}/history`" class="text-accent underline"
                        >History</RouterLink
                    >
                    shows what has changed.
                </p>
                <section>
                    <h2 class="heading">Sections</h2>
                    <p v-if="image.sections.length === 0" class="mt-1 text-soft">
                        The file has no sections; its bytes are laid out all the same.
                    </p>
                    <table v-else class="mt-1 w-full">
                        <thead class="sr-only">
                            <tr>
                                <th>Name</th>
                                <th>Address</th>
                                <th>Size</th>
                                <th>Contents</th>
                                <th>Memory</th>
                            </tr>
                        </thead>
                        <tbody>
                            <tr v-for="section in image.sections" :key="section.name + section.address">
                                <td class="py-0.5 pr-3 font-mono font-semibold">{{ section.name }}</td>
                                <td class="py-0.5 pr-3 font-mono text-[13px]">{{ section.address }}</td>
                                <td class="py-0.5 pr-3 text-right font-mono text-[13px]">
                                    {{ section.sizeBytes.toLocaleString('en') }} B
                                </td>
                                <td class="py-0.5 pr-3 text-soft">{{ section.contents }}</td>
                                <td class="py-0.5" :class="section.problem ? 'text-error' : ''">
                                    {{ section.problem ? 'does not fit' : section.memory }}
                                </td>
                            </tr>
                        </tbody>
                    </table>
                    <p class="mt-1 text-[13px] text-soft">
                        Entry <span class="font-mono">{{ image.entry }}</span>
                    </p>
                </section>
                <MemoryBars :memories="image.memories" />
            </div>
            <section>
                <h2 class="heading">Outputs</h2>
                <p v-if="image.outputs.length === 0" class="mt-1 text-soft">
                    There are none until the program fits.
                </p>
                <table v-else class="mt-1 w-full">
                    <thead>
                        <tr class="text-left text-[12px] text-soft">
                            <th scope="col" class="font-normal">file</th>
                            <th scope="col" class="pr-3 text-right font-normal">bytes</th>
                            <th scope="col" class="font-normal">CRC-32</th>
                            <th scope="col"><span class="sr-only">Download</span></th>
                        </tr>
                    </thead>
                    <tbody>
                        <tr v-for="output in image.outputs" :key="output.name" class="border-t border-line">
                            <td class="border-t border-line py-1 pr-2">
                                <span class="block font-mono text-[13px]">{{ output.name }}</span>
                                <span class="block text-[13px] text-soft">{{ output.title }}</span>
                            </td>
                            <td class="border-t border-line pr-3 text-right font-mono text-[13px]">
                                {{ output.sizeBytes.toLocaleString('en') }}
                            </td>
                            <td class="border-t border-line pr-3">
                                <button
                                    class="font-mono text-[13px] hover:text-accent"
                                    title="Copy"
                                    @click="copy(output.crc32)"
                                >
                                    {{ output.crc32 }}
                                </button>
                            </td>
                            <td class="border-t border-line text-right">
                                <a
                                    class="button"
                                    :href="url(output.name)"
                                    :aria-label="`Download ${output.name}`"
                                    >Download</a
                                >
                            </td>
                        </tr>
                    </tbody>
                </table>
            </section>
        </div>
    </div>
</template>
