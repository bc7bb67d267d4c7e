<script setup lang="ts">
import { RadioGroup, RadioGroupLabel, RadioGroupOption } from '@headlessui/vue'
import { useQuery } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answer, client } from '../api/client'
import { tellProblem } from '../frame/notices'
import HomeFrame from './HomeFrame.vue'

const router = useRouter()
const { data: library } = useQuery({
    queryKey: ['library'],
    queryFn: () => answer(client.GET('/api/library')),
})
const board = ref<string>()
const recipe = ref('panel')
const name = ref('')
const creating = ref(false)

watch(
    library,
    (loaded) => {
        board.value ??= loaded?.boards[0]?.identity
    },
    { immediate: true },
)

const recipes = computed(() => [
    {
        name: '',
        title: 'Empty',
        summary: 'Nothing but the board; add blocks one by one',
        blocks: [] as string[],
        parts: [] as string[],
        boards: [] as string[],
    },
    ...(library.value?.recipes ?? []),
])
/** Whether a recipe is made for the chosen board, or for any. */
const isFor = (boards: string[]): boolean =>
    boards.length === 0 || boards.some((each) => each === board.value)
/** Recipes for this board and those that only lack a part; others would only be in the way. */
const offered = computed(() => recipes.value.filter((each) => isFor(each.boards)))

/** Parts that a recipe needs and the chosen board does not have. */
function missing(parts: string[]): string[] {
    const there = library.value?.boards.find((each) => each.identity === board.value)?.parts ?? []
    return parts.filter((part) => !there.some((each) => each.name === part))
}

watch(board, () => {
    const chosen = recipes.value.find((each) => each.name === recipe.value)
    if (chosen && (!isFor(chosen.boards) || missing(chosen.parts).length)) {
        recipe.value = ''
    }
})

async function create(): Promise<void> {
    if (!board.value || !name.value.trim()) {
        return
    }
    creating.value = true
    try {
        const created = await answer(
            client.POST('/api/platforms', {
                body: {
                    name: name.value,
                    board: board.value,
                    ...(recipe.value ? { recipe: recipe.value } : {}),
                },
            }),
        )
        await router.push(`/p/${created.id}/compose`)
    } catch (problem) {
        tellProblem(problem)
    } finally {
        creating.value = false
    }
}
</script>

<template>
    <HomeFrame>
        <form v-if="library" class="flex flex-col gap-7" @submit.prevent="create">
            <h1 class="text-2xl font-semibold">New platform</h1>
            <RadioGroup v-model="board">
                <RadioGroupLabel class="heading block">Board</RadioGroupLabel>
                <div class="mt-2 grid grid-cols-3 gap-3">
                    <RadioGroupOption
                        v-for="each in library.boards"
                        :key="each.identity"
                        v-slot="{ checked }"
                        :value="each.identity"
                        as="template"
                    >
                        <div
                            class="sheet cursor-pointer p-3"
                            :class="checked ? 'border-accent ring-1 ring-accent' : ''"
                        >
                            <div class="font-semibold">{{ each.title }}</div>
                            <div class="text-soft">{{ each.summary }}</div>
                            <div class="mt-1 text-[13px] text-soft">
                                <span class="font-mono">{{ each.device }}</span> ·
                                {{ each.clocks.join(', ') }} ·
                                {{ each.parts.map((part) => part.title).join(', ') }}
                            </div>
                        </div>
                    </RadioGroupOption>
                </div>
            </RadioGroup>
            <RadioGroup v-model="recipe">
                <RadioGroupLabel class="heading block">Start from</RadioGroupLabel>
                <div class="mt-2 grid grid-cols-2 gap-3">
                    <RadioGroupOption
                        v-for="each in offered"
                        :key="each.name"
                        v-slot="{ checked }"
                        :value="each.name"
                        :disabled="missing(each.parts).length > 0"
                        as="template"
                    >
                        <div
                            class="sheet p-3"
                            :class="[
                                checked ? 'border-accent ring-1 ring-accent' : '',
                                missing(each.parts).length ? '' : 'cursor-pointer',
                            ]"
                        >
                            <div class="font-semibold">{{ each.title }}</div>
                            <div class="text-soft">{{ each.summary }}</div>
                            <div v-if="missing(each.parts).length" class="mt-1 text-[13px] text-warn">
                                The board has no {{ missing(each.parts).join(', no ') }}.
                            </div>
                            <div v-else-if="each.blocks.length" class="mt-1.5 flex flex-wrap gap-1">
                                <span v-for="block in each.blocks" :key="block" class="tag">{{ block }}</span>
                            </div>
                        </div>
                    </RadioGroupOption>
                </div>
            </RadioGroup>
            <div>
                <label for="name" class="heading block">Name</label>
                <div class="mt-2 flex gap-3">
                    <input
                        id="name"
                        v-model="name"
                        class="input w-96 !bg-sheet !py-1.5"
                        maxlength="80"
                        placeholder="Ridge Station 2"
                        autocomplete="off"
                    />
                    <button class="button-main" :disabled="!name.trim() || !board || creating">Start</button>
                    <RouterLink to="/" class="button">Cancel</RouterLink>
                </div>
            </div>
        </form>
        <p v-else class="text-soft">Reading the library…</p>
    </HomeFrame>
</template>
