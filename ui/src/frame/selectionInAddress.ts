import { watch, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** Keeps the selection in the address of each view, so that a link or a reload shows the same. */
export function useSelectionInAddress(selected: Ref<string | undefined>): void {
    const route = useRoute()
    const router = useRouter()
    if (typeof route.query.select === 'string' && route.query.select) {
        selected.value = route.query.select
    }
    const platform = route.params.id
    watch([selected, () => route.path], () => {
        // The address is already that of what is gone to when the platform is left.
        if (route.params.id !== platform) {
            return
        }
        const query = { ...route.query }
        if (selected.value === query.select) {
            return
        }
        delete query.select
        void router.replace({
            query: selected.value ? { ...query, select: selected.value } : query,
            hash: route.hash,
        })
    })
}
