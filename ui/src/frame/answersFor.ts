import { computed, ref, watch, type ComputedRef, type Ref } from 'vue'

/** One question that is asked of the server for a text; answers nothing for texts that it has nothing to say of. */
export type Question<T> = (text: string) => Promise<T[]> | undefined

/**
 * What the server answers to a text while it is typed. Only answers to the text as it is now are given: those to an
 * earlier one are gone with it, or Enter would run what is no longer typed. A question that fails has no answers.
 */
export function answersFor<T>(
    text: Ref<string>,
    questions: Question<T>[],
): { answers: ComputedRef<T[]>; waiting: ComputedRef<boolean> } {
    const found = ref<T[][]>([]) as Ref<T[][]>
    const open = ref(0)
    let newest = 0
    watch(
        text,
        (value) => {
            const number = ++newest
            const asked = questions.map((question) => question(value.trim()))
            found.value = asked.map(() => [])
            open.value = asked.filter(Boolean).length
            asked.forEach((answer, place) => {
                answer
                    ?.catch((): T[] => [])
                    .then((entries) => {
                        if (number === newest) {
                            found.value[place] = entries
                            open.value--
                        }
                    })
            })
        },
        { flush: 'sync' },
    )
    return { answers: computed(() => found.value.flat()), waiting: computed(() => open.value > 0) }
}
