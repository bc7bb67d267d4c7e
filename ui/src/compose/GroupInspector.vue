<script setup lang="ts">
import { computed } from 'vue'
import type { GroupView } from '../api/client'
import EditableName from '../frame/EditableName.vue'
import { usePlatform } from '../frame/platform'
import { naming } from './naming'
import { usePicture } from './picture'
import { useSelection } from './selection'

const props = defineProps<{ group: GroupView }>()
const context = usePlatform()
const picture = usePicture()
const selection = useSelection()
const folded = computed(() => picture.isFolded(props.group.name))

async function rename(newName: string): Promise<void> {
    if (await context.edit({ edit: 'rename-group', name: props.group.name, newName })) {
        context.selected.value = `group ${newName}`
    }
}
</script>

<template>
    <aside
        class="flex w-[336px] shrink-0 max-[1000px]:w-[270px] flex-col gap-4 overflow-y-auto border-l border-line bg-sheet p-4"
        aria-label="Inspector"
    >
        <div>
            <EditableName
                label="Name of the group"
                class="text-xl font-semibold"
                :value="group.name"
                @change="rename"
            />
            <p class="px-1 text-[13px] text-soft">
                Group of {{ group.blocks.length }} blocks; the names of all begin with {{ group.name }}_.
            </p>
        </div>
        <div class="flex flex-wrap gap-2">
            <button class="button" @click="picture.toggleFold(group.name)">
                {{ folded ? 'Unfold' : 'Fold' }}
            </button>
            <button class="button" @click="selection.duplicateGroup(group.name)">Duplicate…</button>
            <button class="button" @click="naming.recipe = group.name">Save as recipe…</button>
            <button class="button" @click="context.edit({ edit: 'ungroup', name: group.name })">
                Dissolve
            </button>
        </div>
        <section>
            <h2 class="heading">Blocks</h2>
            <ul class="mt-1">
                <li v-for="name in group.blocks" :key="name">
                    <button class="hover:text-accent" @click="context.selected.value = name">
                        {{ name }}
                    </button>
                </li>
            </ul>
        </section>
        <section>
            <h2 class="heading">External connections</h2>
            <table class="mt-1 w-full text-[13px]">
                <tbody>
                    <tr
                        v-for="each in group.interfaces"
                        :key="each.sort + each.inside"
                        class="align-baseline"
                    >
                        <td class="py-0.5 pr-2 text-soft">{{ each.sort }}</td>
                        <td class="py-0.5 pr-2">{{ each.inside.slice(group.name.length + 1) }}</td>
                        <td class="py-0.5 text-soft">{{ each.outside }}</td>
                    </tr>
                </tbody>
            </table>
        </section>
    </aside>
</template>
