import { reactive, watch } from 'vue'

/** Which groups of a platform are folded; each browser keeps it for itself. */
export function useFolds(platform: string): {
    isFolded: (group: string) => boolean
    toggle: (group: string) => void
} {
    const key = `folded ${platform}`
    const folded = reactive(new Set<string>(JSON.parse(localStorage.getItem(key) ?? '[]') as string[]))
    watch(folded, () => {
        localStorage.setItem(key, JSON.stringify([...folded]))
    })
    return {
        isFolded: (group) => folded.has(group),
        toggle: (group) => {
            if (!folded.delete(group)) {
                folded.add(group)
            }
        },
    }
}
