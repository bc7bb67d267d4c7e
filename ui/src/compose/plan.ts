import { reactive, ref, watch } from 'vue'
import { answer, client, type Edit, type PlanRequest, type PlanView } from '../api/client'
import type { PlatformContext } from '../frame/platform'

/** A wiring plan as it is looked at: lines switched off, choices made, and requested again after each. */
export function usePlan(context: PlatformContext) {
    const plan = ref<PlanView>()
    const problem = ref<string>()
    const off = reactive(new Set<string>())
    const chosen = reactive<Record<string, number>>({})
    let add: PlanRequest['add']
    let paste: string | undefined
    let recipe: string | undefined
    let asked = 0
    let newest: Promise<void> = Promise.resolve()

    /** Comes to an end when the answer to the newest question is there, whether that is this one or a later one. */
    async function ask(): Promise<void> {
        let mine = askOnce(++asked)
        newest = mine
        await mine
        while (newest !== mine) {
            mine = newest
            await mine
        }
    }

    async function askOnce(number: number): Promise<void> {
        try {
            const answered = await answer(
                client.POST('/api/platforms/{id}/plan', {
                    params: { path: { id: context.id } },
                    body: {
                        ...(add ? { add } : {}),
                        ...(paste ? { paste } : {}),
                        ...(recipe ? { recipe } : {}),
                        off: [...off],
                        chosen: { ...chosen },
                    },
                }),
            )
            if (number === asked) {
                plan.value = answered
                problem.value = undefined
            }
        } catch (error) {
            if (number === asked) {
                plan.value = undefined
                problem.value = error instanceof Error ? error.message : String(error)
            }
        }
    }

    async function begin(block?: PlanRequest['add'], blocks?: string, recipeName?: string): Promise<void> {
        paste = blocks
        recipe = recipeName
        off.clear()
        Object.keys(chosen).forEach((key) => Reflect.deleteProperty(chosen, key))
        plan.value = undefined
        problem.value = undefined
        add = block
        await ask()
    }

    async function change(block: PlanRequest['add']): Promise<void> {
        add = block
        await ask()
    }

    async function toggle(key: string): Promise<void> {
        if (!off.delete(key)) {
            off.add(key)
        }
        await ask()
    }

    async function choose(key: string, choice: number): Promise<void> {
        chosen[key] = choice
        await ask()
    }

    async function apply(): Promise<boolean> {
        if (!plan.value) {
            return false
        }
        const { edit, revision } = plan.value
        // While it is applied, it is no longer a plan that could be worked out again.
        plan.value = undefined
        const done = await context.edit(edit as unknown as Edit, revision)
        if (!done) {
            await ask()
        }
        return done
    }

    // What was worked out for an older revision says nothing about this one.
    watch(
        () => context.platform.value?.revision,
        (revision) => {
            if (plan.value && plan.value.revision !== revision) {
                void ask()
            }
        },
    )

    return { plan, problem, begin, change, toggle, choose, apply }
}
