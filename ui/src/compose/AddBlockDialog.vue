<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { answer, client, type Edit, type PlanRequest } from '../api/client'
import ConsequenceList from '../findings/ConsequenceList.vue'
import { useConsequences } from '../findings/consequences'
import { open } from '../frame/actions'
import DialogFrame from '../frame/DialogFrame.vue'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'
import { focusCard } from './focusCard'
import { usePlan } from './plan'
import { byKind } from '../library/kinds'
import PlanLines from './PlanLines.vue'

interface Offer {
    key: string
    title: string
    summary: string
    type: string
    kind: string
    part?: string
    recipe?: string
}

const context = usePlatform()
const { data: library } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const { plan, problem, begin, change, toggle, choose, apply } = usePlan(context)
const breaks = useConsequences(context, () => plan.value?.edit as unknown as Edit | undefined)
const filter = ref('')
const picked = shallowRef<Offer>()
const name = ref('')
const isTyped = ref(false)

const matches = (text: string): boolean => text.toLowerCase().includes(filter.value.toLowerCase().trim())
/** What is called as what is typed comes before what only mentions it. */
const byTitle = (one: Offer, other: Offer): number =>
    Number(matches(other.title)) - Number(matches(one.title))

/** Hard blocks of the board's device. */
const hard = computed(
    () => library.value?.boards.find((each) => each.identity === context.platform.value?.board)?.hard ?? [],
)

const types = computed<Offer[]>(() =>
    (library.value?.types ?? [])
        .filter((type) => type.newest && (!type.needs || hard.value.includes(type.needs)))
        .map((type) => ({
            key: type.identity,
            title: type.title,
            summary: type.summary,
            type: type.identity,
            kind: type.kind,
        }))
        .filter((offer) => matches(`${offer.title} ${offer.summary} ${offer.type} ${offer.kind}`)),
)

/** Recipes whose board parts are free here. */
const recipes = computed<Offer[]>(() =>
    (library.value?.recipes ?? [])
        .filter((recipe) =>
            recipe.parts.every((part) =>
                context.platform.value?.parts.some((each) => each.part === part && !each.block),
            ),
        )
        .map((recipe) => ({
            key: `recipe ${recipe.name}`,
            title: recipe.title,
            summary: `${String(recipe.blocks.length)} blocks: ${recipe.blocks.join(', ')}`,
            type: '',
            kind: 'recipe',
            recipe: recipe.name,
        }))
        .filter((offer) => matches(`${offer.title} ${offer.summary} recipe`)),
)

/** Free parts of the board, each with the block that drives it. */
const parts = computed<Offer[]>(() =>
    (context.platform.value?.parts ?? [])
        .filter((part) => !part.block && part.drivers.length > 0)
        .map((part) => {
            const type = library.value?.types.find((each) => each.identity === part.drivers[0])
            return {
                key: `part ${part.part}`,
                title: part.title,
                summary: `board part ${part.part}, driven by a ${type?.title ?? 'block'}`,
                type: part.drivers[0] ?? '',
                kind: 'part',
                part: part.part,
            }
        })
        .filter((offer) => matches(`${offer.title} ${offer.summary}`)),
)

/** Where nothing is on the board yet, several blocks that work together are the quickest beginning. */
const groups = computed(() => {
    const several = { title: 'Recipes: several at once', offers: recipes.value }
    const single = [
        { title: 'Free parts of the board', offers: parts.value },
        ...byKind(types.value).map((group) => ({ title: group.title, offers: group.entries })),
    ]
    const isEmpty = context.platform.value?.blocks.length === 0
    return (isEmpty ? [several, ...single] : [...single, several])
        .filter((group) => group.offers.length > 0)
        .map((group) => ({ ...group, offers: [...group.offers].sort(byTitle) }))
})

/** The offer that Enter takes: the first match until the arrows have moved on. */
const at = ref(0)
const flat = computed(() => groups.value.flatMap((group) => group.offers))
watch(filter, () => (at.value = 0))
const nameField = ref<HTMLInputElement>()
const addButton = ref<HTMLButtonElement>()
const list = ref<HTMLElement>()

function move(by: 1 | -1): void {
    at.value = Math.min(Math.max(at.value + by, 0), Math.max(flat.value.length - 1, 0))
    void nextTick(() => list.value?.querySelector('[data-next]')?.scrollIntoView({ block: 'nearest' }))
}

/** Enter came before there was anything to take: it is taken as soon as there is. */
let early: { adds: boolean } | undefined
watch(library, () => {
    if (early) {
        void take(early.adds)
    }
})

/**
 * Takes the offer and goes on to its name, where Enter counts before the proposal has come.
 *
 * @param adds adds it at once, as it is proposed
 */
async function take(adds: boolean): Promise<void> {
    early = library.value ? undefined : { adds }
    const offer = flat.value[at.value]
    if (!offer || early) {
        return
    }
    const proposed = pick(offer)
    if (adds) {
        await confirm()
        return
    }
    await nextTick()
    nameField.value?.focus()
    await proposed
    await nextTick()
    if (offer.recipe) {
        addButton.value?.focus()
    } else if (!isTyped.value) {
        nameField.value?.select()
    }
}

function request(offer: Offer, wished?: string): PlanRequest['add'] {
    return {
        type: offer.type,
        ...(offer.part ? { part: offer.part } : {}),
        ...(wished ? { name: wished } : {}),
        ...(open.addAt ? { near: open.addAt.base, bus: open.addAt.bus } : {}),
    }
}

/** The proposal that is on its way, or the last one. */
let proposing: Promise<unknown> = Promise.resolve()

async function pick(offer: Offer): Promise<void> {
    picked.value = offer
    name.value = ''
    isTyped.value = false
    proposing = offer.recipe ? begin(undefined, undefined, offer.recipe) : begin(request(offer))
    await proposing
}

// A name is proposed until one is typed; no answer takes the place of what was typed.
watch(
    () => plan.value?.name,
    (proposed) => {
        if (!isTyped.value && proposed) {
            name.value = proposed
        }
    },
)

watch(
    () => open.add,
    (opened) => {
        if (opened) {
            early = undefined
            picked.value = undefined
            plan.value = undefined
            filter.value = open.addFilter
            open.addFilter = ''
        }
    },
)

/** What is typed is what is added: the plan is requested again with it. */
async function rename(): Promise<void> {
    const wished = name.value.trim()
    if (picked.value && !picked.value.recipe && wished && wished !== plan.value?.name) {
        await change(request(picked.value, wished))
    }
}

async function confirm(): Promise<void> {
    await proposing
    await rename()
    const added = plan.value?.name
    if (await apply()) {
        open.add = false
        context.selected.value = added ?? undefined
        if (added) {
            focusCard(added)
        }
    }
}
</script>

<template>
    <DialogFrame :open="open.add" title="Add a block" :width="920" @close="open.add = false">
        <div class="mt-3 flex h-[60vh] min-h-0 flex-1 gap-5">
            <div class="flex w-[340px] flex-col">
                <input
                    v-model="filter"
                    class="input !py-1"
                    placeholder="Find by name or purpose"
                    aria-label="Find a block"
                    aria-describedby="add-keys"
                    @keydown.down.prevent="move(1)"
                    @keydown.up.prevent="move(-1)"
                    @keydown.enter.prevent="take($event.ctrlKey || $event.metaKey)"
                />
                <p id="add-keys" class="mt-1 text-[12px] text-soft">
                    ↑ ↓ choose, Enter takes it, Ctrl Enter adds it as it is proposed
                </p>
                <div ref="list" class="mt-2 min-h-0 flex-1 overflow-auto pr-1">
                    <template v-for="group in groups" :key="group.title">
                        <h3 class="heading mt-3 first:mt-0">{{ group.title }}</h3>
                        <button
                            v-for="offer in group.offers"
                            :key="offer.key"
                            data-offer
                            class="mt-1 block w-full rounded border px-2 py-1 text-left hover:border-accent"
                            :class="
                                picked?.key === offer.key
                                    ? 'border-accent bg-accent-soft'
                                    : flat[at]?.key === offer.key
                                      ? 'border-line bg-paper'
                                      : 'border-transparent'
                            "
                            :data-next="flat[at]?.key === offer.key ? '' : undefined"
                            @click="pick(offer)"
                        >
                            <span class="block font-semibold">{{ offer.title }}</span>
                            <span class="block text-[13px] text-soft">{{ offer.summary }}</span>
                        </button>
                    </template>
                    <p v-if="groups.length === 0" class="mt-3 text-soft">No matches.</p>
                </div>
            </div>
            <div class="flex min-w-0 flex-1 flex-col border-l border-line pl-5">
                <p v-if="!picked" class="text-soft">
                    Choose a block to see how it will be connected before it is added.
                </p>
                <template v-else>
                    <p v-if="picked.recipe" class="font-semibold">{{ picked.title }}</p>
                    <label v-else class="flex items-center gap-3">
                        <span class="text-soft">Name</span>
                        <input
                            ref="nameField"
                            v-model="name"
                            class="input w-56 font-mono"
                            @input="isTyped = true"
                            @change="rename"
                            @keydown.enter="confirm"
                        />
                    </label>
                    <p v-if="problem" class="mt-2 text-error" role="alert">{{ problem }}</p>
                    <template v-if="plan">
                        <h3 class="heading mt-4">Proposed connections</h3>
                        <div v-scrolls class="min-h-0 flex-1 overflow-auto">
                            <PlanLines :lines="plan.lines" @toggle="toggle" @choose="choose" />
                            <p v-if="plan.lines.length === 0" class="mt-2 text-soft">
                                The block is added; there is nothing yet that it could be connected to.
                            </p>
                        </div>
                        <ConsequenceList :consequences="breaks" title="New findings with this block" />
                    </template>
                </template>
            </div>
        </div>
        <template #buttons>
            <button class="button" @click="open.add = false">Cancel</button>
            <button ref="addButton" class="button-main" :disabled="!plan" @click="confirm">
                {{ plan?.name ? `Add ${name.trim() || plan.name}` : 'Add' }}
            </button>
        </template>
    </DialogFrame>
</template>
