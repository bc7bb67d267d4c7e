<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, client, type PlatformView } from '../api/client'
import AddressField from '../compose/AddressField.vue'
import { useBlockSheet } from '../compose/blockSheet'
import { copy } from '../frame/notices'
import { usePlatform } from '../frame/platform'
import { vScrolls } from '../frame/scrolls'

const props = defineProps<{
    blocks: string[]
    /** Blocks of which the bench only keeps the registers. */
    passive: string[]
    verilog: string[]
    platform: PlatformView
    running: boolean
    cycles: number
}>()
const context = usePlatform()
const queries = useQueryClient()
const chosen = ref<string>()
const block = computed(() =>
    chosen.value && props.blocks.includes(chosen.value) ? chosen.value : props.blocks[0],
)
const key = computed(() => ['bench-registers', context.id, block.value])
const { data: values } = useQuery({
    queryKey: key,
    queryFn: () =>
        answer(
            client.GET('/api/platforms/{id}/bench/registers', {
                params: { path: { id: context.id }, query: { block: block.value ?? '' } },
            }),
        ),
    enabled: computed(() => block.value !== undefined),
    refetchInterval: computed(() => (props.running ? 500 : false)),
    placeholderData: (before) => before,
})

const { sheet } = useBlockSheet(context, () => block.value?.split('.')[0])
const about = computed(() => sheet.value?.registers ?? [])
const accessOf = (name: string): string => about.value.find((each) => each.name === name)?.access ?? 'rw'
const explains = (name: string): string => about.value.find((each) => each.name === name)?.explains ?? ''
const conditionOf = (name: string): string =>
    about.value.find((each) => each.name === name)?.condition ?? 'it is there'
function nameOf(name: string, index: number): string {
    const register = about.value.find((each) => each.name === name)
    return register && register.count > 1 ? `${name}[${register.first + index}]` : name
}

async function write(register: string, index: number, value: string): Promise<true | string> {
    let done: true | string = true
    try {
        await answer(
            client.POST('/api/platforms/{id}/bench/registers', {
                params: { path: { id: context.id } },
                body: { block: block.value ?? '', register, index, value },
            }),
        )
    } catch (error) {
        done = error instanceof Error ? error.message : String(error)
    }
    await queries.invalidateQueries({ queryKey: key.value })
    return done
}
</script>

<template>
    <section class="sheet flex min-h-0 flex-col" aria-label="Registers">
        <div class="flex flex-wrap items-center gap-1 border-b border-line px-3 py-1.5">
            <h2 class="mr-2 text-[13px] font-semibold">Registers of</h2>
            <button
                v-for="name in blocks"
                :key="name"
                class="rounded px-2 hover:text-accent"
                :class="name === block ? 'bg-accent-soft font-semibold text-accent' : ''"
                :aria-pressed="name === block"
                @click="chosen = name"
            >
                {{ name }}
            </button>
        </div>
        <p
            v-if="block && passive.includes(block)"
            class="border-b border-line bg-warn-soft px-3 py-1 text-[13px] text-warn"
        >
            The bench does not act this block out: its registers keep what is written, and nothing else
            happens.
        </p>
        <p
            v-if="block && verilog.includes(block)"
            class="border-b border-line px-3 py-1 text-[13px] text-soft"
        >
            The HDL of this block runs here. Register values are not shown, because reading may change them.
        </p>
        <div v-scrolls class="min-h-0 flex-1 overflow-auto">
            <table class="w-full">
                <thead>
                    <tr class="table-head">
                        <th scope="col" class="px-3 py-1">Register</th>
                        <th scope="col" class="px-2 py-1">Address</th>
                        <th scope="col" class="px-2 py-1">Access</th>
                        <th scope="col" class="px-3 py-1">Value</th>
                    </tr>
                </thead>
                <tbody>
                    <tr
                        v-for="value in values"
                        :key="value.register + value.index"
                        class="border-b border-line"
                        :title="explains(value.register)"
                    >
                        <td class="px-3 py-0.5 font-mono text-[13px] font-semibold">
                            {{ nameOf(value.register, value.index) }}
                        </td>
                        <td class="px-2 py-0.5">
                            <button
                                class="font-mono text-[13px] hover:text-accent"
                                title="Copy"
                                @click="copy(value.address)"
                            >
                                {{ value.address }}
                            </button>
                        </td>
                        <td class="px-2 py-0.5 text-[13px] text-soft">{{ accessOf(value.register) }}</td>
                        <td class="w-48 px-3 py-0.5 font-mono text-[13px]">
                            <span v-if="!value.isThere" class="px-2 font-sans text-soft">
                                when {{ conditionOf(value.register) }}
                            </span>
                            <AddressField
                                v-else-if="accessOf(value.register) !== 'ro'"
                                hide-label
                                only-on-enter
                                :label="`Value of ${nameOf(value.register, value.index)}`"
                                :placeholder="value.value == null ? 'write only' : undefined"
                                :value="value.value ?? ''"
                                :write="(text: string) => write(value.register, value.index, text)"
                            />
                            <span v-else class="px-2">{{ value.value }}</span>
                        </td>
                    </tr>
                </tbody>
            </table>
        </div>
    </section>
</template>
