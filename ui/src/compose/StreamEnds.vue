<script setup lang="ts">
import { ref } from 'vue'
import { answer, client, type BlockSheet, type Edit, type OfferView, type StreamEndView } from '../api/client'
import { tellProblem } from '../frame/notices'
import { usePlatform } from '../frame/platform'

const props = defineProps<{ block: BlockSheet }>()
const context = usePlatform()
/** What leading the stream there takes, when it takes more than a wire; looked at before it happens. */
const offer = ref<{ end: string; offer: OfferView }>()

async function lead(end: StreamEndView, peer: string): Promise<void> {
    offer.value = undefined
    const own = `${props.block.name}.${end.name}`
    if (!peer) {
        const source = end.end === 'source' ? own : (end.peer ?? '')
        const dot = source.indexOf('.')
        void context.edit({
            edit: 'disconnect-stream',
            block: source.slice(0, dot),
            source: source.slice(dot + 1),
        })
        return
    }
    const [source, sink] = end.end === 'source' ? [own, peer] : [peer, own]
    try {
        const asked = await answer(
            client.GET('/api/platforms/{id}/join', {
                params: { path: { id: context.id }, query: { source, sink } },
            }),
        )
        const plain = asked.edit && !asked.words.includes(' through ')
        if (plain) {
            await context.edit(asked.edit as unknown as Edit, asked.revision)
        } else {
            offer.value = { end: end.name, offer: asked }
        }
    } catch (problem) {
        tellProblem(problem)
    }
}

async function accept(): Promise<void> {
    const accepted = offer.value?.offer
    offer.value = undefined
    if (accepted?.edit) {
        await context.edit(accepted.edit as unknown as Edit, accepted.revision)
    }
}

const valueOf = (event: Event): string => (event.target as HTMLSelectElement).value
</script>

<template>
    <section>
        <h2 class="heading">Streams</h2>
        <div v-for="end in block.streams" :key="end.name" class="py-0.5">
            <label class="grid grid-cols-[96px_1fr] items-center">
                <span>{{ end.title }}</span>
                <select
                    class="input min-w-0"
                    :aria-label="`${end.end === 'source' ? 'Where' : 'From where'} ${end.name} ${end.end === 'source' ? 'goes' : 'comes'}`"
                    :value="end.peer ?? ''"
                    @change="lead(end, valueOf($event))"
                >
                    <option value="">open</option>
                    <option v-if="end.peer" :value="end.peer">
                        {{ end.end === 'source' ? 'to' : 'from' }} {{ end.peer }}
                    </option>
                    <option
                        v-for="choice in end.choices.filter((each) => each !== end.peer)"
                        :key="choice"
                        :value="choice"
                    >
                        {{ end.end === 'source' ? (end.peer ? 'also to' : 'to') : 'from' }} {{ choice }}
                    </option>
                </select>
            </label>
            <p class="text-[12px] text-soft">
                {{ end.end }}, {{ end.width }} bit{{ end.words ? `, ${end.words}` : '' }}
            </p>
            <div
                v-if="offer?.end === end.name"
                class="mt-1 rounded border border-accent bg-accent-soft p-2 text-[13px]"
                role="status"
            >
                <p>{{ offer.offer.problem ?? `This will ${offer.offer.words}.` }}</p>
                <div class="mt-1 flex gap-2">
                    <button v-if="offer.offer.edit" class="button-main !py-0.5" @click="accept">Do it</button>
                    <button class="button !py-0.5" @click="offer = undefined">Leave it</button>
                </div>
            </div>
        </div>
    </section>
</template>
