import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { answer, client } from '../api/client'
import type { PlatformContext } from './platform'

/**
 * What one initiator sees, read again with each revision. What was shown stays until the new is there.
 *
 * @param initiator as block.interface; undefined to read nothing
 */
export function useInitiatorSpace(context: PlatformContext, initiator: () => string | undefined) {
    return useQuery({
        queryKey: computed(() => [
            'space',
            context.id,
            context.at.value,
            context.platform.value?.revision,
            initiator(),
        ]),
        queryFn: () =>
            answer(
                client.GET('/api/platforms/{id}/space', {
                    params: {
                        path: { id: context.id },
                        query: { initiator: initiator() ?? '', at: context.at.value },
                    },
                }),
            ),
        enabled: computed(() => initiator() !== undefined),
        placeholderData: (before) => before,
    })
}
