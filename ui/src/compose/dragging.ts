import { reactive } from 'vue'
import { answer, client, type Edit, type OfferView } from '../api/client'
import type { PlatformContext } from '../frame/platform'

/** A target that is dragged over the rails, and what dropping it now would do. */
export const dragging = reactive({
    block: undefined as string | undefined,
    busInterface: undefined as string | undefined,
    /** Gap under the pointer, as bus and base. */
    over: undefined as string | undefined,
    offer: undefined as OfferView | undefined,
})

/** What is being asked about the gap under the pointer; a quick drop waits for it. */
let asking: Promise<void> = Promise.resolve()
let dropping = false

export function beginDrag(event: DragEvent, block: string, busInterface: string): void {
    event.dataTransfer?.setData('text/plain', block)
    dragging.block = block
    dragging.busInterface = busInterface
}

export function endDrag(): void {
    if (dropping) {
        return
    }
    dragging.block = undefined
    dragging.over = undefined
    dragging.offer = undefined
}

/** Asks what a drop into a gap would do, so that it can be seen before. */
export function hover(context: PlatformContext, bus: string, near: string): void {
    const { block, busInterface } = dragging
    const over = `${bus} ${near}`
    if (block === undefined || busInterface === undefined || dragging.over === over) {
        return
    }
    dragging.over = over
    dragging.offer = undefined
    asking = ask(context, over, { block, busInterface, bus, near })
}

async function ask(
    context: PlatformContext,
    over: string,
    query: { block: string; busInterface: string; bus: string; near: string },
): Promise<void> {
    try {
        const offer = await answer(
            client.GET('/api/platforms/{id}/drop', { params: { path: { id: context.id }, query } }),
        )
        if (dragging.over === over) {
            dragging.offer = offer
        }
    } catch {
        // The platform changed meanwhile; the next gap asks again.
    }
}

export async function drop(context: PlatformContext): Promise<void> {
    // The drag ends at once; what was asked is still wanted.
    dropping = true
    await asking
    dropping = false
    const offer = dragging.offer
    endDrag()
    if (offer?.edit) {
        await context.edit(offer.edit as unknown as Edit, offer.revision)
    }
}
