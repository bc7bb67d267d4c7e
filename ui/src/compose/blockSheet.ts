import { useQuery } from '@tanstack/vue-query'
import { computed, type ComputedRef } from 'vue'
import { answer, client, type BlockSheet } from '../api/client'
import type { PlatformContext } from '../frame/platform'

/** Everything about one block, read again with each revision; what was shown stays until the new one is there. */
export function useBlockSheet(
    context: PlatformContext,
    name: () => string | undefined,
): { sheet: ComputedRef<BlockSheet | undefined>; failed: ComputedRef<boolean>; again: () => void } {
    const { data, isError, isPaused, refetch } = useQuery({
        queryKey: computed(() => [
            'sheet',
            context.id,
            name(),
            context.at.value,
            context.platform.value?.revision,
        ]),
        queryFn: () =>
            answer(
                client.GET('/api/platforms/{id}/blocks/{name}', {
                    params: {
                        path: { id: context.id, name: name() ?? '' },
                        query: { at: context.at.value },
                    },
                }),
            ),
        enabled: computed(() => name() !== undefined),
        placeholderData: (before: BlockSheet | undefined) => (before?.name === name() ? before : undefined),
    })
    return {
        sheet: computed(() => data.value),
        failed: computed(() => isError.value || isPaused.value),
        again: () => void refetch(),
    }
}
