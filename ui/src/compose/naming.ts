import { reactive } from 'vue'

/** What is about to get a name: the blocks of a new group, or a group that becomes a recipe. */
export const naming = reactive({
    group: undefined as string[] | undefined,
    recipe: undefined as string | undefined,
})
