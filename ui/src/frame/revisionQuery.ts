import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { usePlatform } from './platform'

/**
 * What follows from the platform, read again with each revision, or for the earlier one that is looked at. What was shown
 * stays until the new is there.
 *
 * @param name what it is called among all that is read
 * @param read reads it; `at` is the earlier revision, undefined for the newest
 */
export function useRevisionQuery<T>(name: string, read: (id: string, at: number | undefined) => Promise<T>) {
    const context = usePlatform()
    return useQuery<T, Error, T>({
        queryKey: computed(() => [name, context.id, context.at.value, context.platform.value?.revision]),
        queryFn: () => read(context.id, context.at.value),
        placeholderData: ((before: T | undefined) => before) as never,
    })
}
