import { computed, inject, provide, ref, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import type { PlatformContext } from '../frame/platform'
import { netsOf } from './nets'

/**
 * What is lit and what fades in the picture. Each card looks at it for itself, so that a change draws only the cards
 * that it concerns, however many there are.
 */
export interface Picture {
    /** The signal net that is pointed at. */
    net: Ref<string | undefined>
    /** Blocks on that net. */
    lit: ComputedRef<Set<string> | undefined>
    /** What the selected initiator reaches, as block.interface; nothing fades without one. */
    world: ComputedRef<Set<string> | undefined>
}

const KEY: InjectionKey<Picture> = Symbol('picture')

export function usePicture(): Picture {
    const picture = inject(KEY)
    if (!picture) {
        throw new Error('no picture is provided here')
    }
    return picture
}

export function providePicture(context: PlatformContext): Picture {
    const net = ref<string>()
    const lit = computed(() => {
        const platform = context.platform.value
        const pointed = net.value
        return pointed === undefined || !platform
            ? undefined
            : new Set(
                  platform.blocks
                      .filter((block) => netsOf(platform, block.name).has(pointed))
                      .map((block) => block.name),
              )
    })
    const world = computed(() => {
        const selected = context.selected.value
        if (!selected?.includes('.')) {
            return undefined
        }
        const initiator = context.platform.value?.buses
            .flatMap((bus) => bus.initiators)
            .find((each) => `${each.block}.${each.busInterface}` === selected)
        return initiator && new Set(initiator.reaches)
    })
    const picture = { net, lit, world }
    provide(KEY, picture)
    return picture
}
