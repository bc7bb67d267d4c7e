import { answer, client, type Edit } from '../api/client'
import { tellProblem } from '../frame/notices'
import type { PlatformContext } from '../frame/platform'

export type RangeChange = 'end' | 'snap' | 'swap' | 'up' | 'down'

/**
 * Works a change of ranges out and makes it; says what does not go.
 *
 * @param targets each as block.interface
 * @param value last address, wished base or distance; nothing to swap
 */
export async function changeRanges(
    context: PlatformContext,
    change: RangeChange,
    targets: string[],
    value?: string,
): Promise<boolean> {
    try {
        const offer = await answer(
            client.POST('/api/platforms/{id}/ranges', {
                params: { path: { id: context.id } },
                body: { change, targets, ...(value === undefined ? {} : { amount: value }) },
            }),
        )
        return await context.edit(offer.edit as unknown as Edit, offer.revision)
    } catch (error) {
        tellProblem(error)
        return false
    }
}
