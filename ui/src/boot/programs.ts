import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { answer, client, upload } from '../api/client'
import { tell, tellProblem } from '../frame/notices'

const LARGEST = 64 * 1024 * 1024

/** The programs of a platform and the one that is chosen; the newest until another is. */
export function usePrograms(id: string) {
    const queries = useQueryClient()
    const { data: programs } = useQuery({
        queryKey: ['programs', id],
        queryFn: () => answer(client.GET('/api/platforms/{id}/programs', { params: { path: { id } } })),
    })
    const chosen = ref<string>()
    const program = computed(
        () => programs.value?.find((each) => each.id === chosen.value) ?? programs.value?.[0],
    )
    const sending = ref(false)

    async function add(file: File): Promise<void> {
        if (file.size > LARGEST) {
            tell('problem', 'Too large', `${file.name} is larger than the 64 MiB that a program may have.`)
            return
        }
        sending.value = true
        try {
            const added = await upload<{ id: string }>(
                `/api/platforms/${id}/programs?name=${encodeURIComponent(file.name)}`,
                file,
            )
            await queries.invalidateQueries({ queryKey: ['programs', id] })
            chosen.value = added.id
        } catch (problem) {
            tellProblem(problem)
        } finally {
            sending.value = false
        }
    }

    return { programs, program, chosen, sending, add }
}
