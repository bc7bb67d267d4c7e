import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

/** Part of an element, in its own pixels from its top. */
export interface Part {
    from: number
    to: number
}

/** What is drawn beyond the part that can be seen, so that scrolling finds it ready. */
const MARGIN = 1200
const STEP = 400

/**
 * The part of an element that can be seen in what scrolls around it, with a margin. It changes in large steps, so that
 * what depends on it is not worked out again for each pixel.
 */
export function useScrolledPart(element: Ref<HTMLElement | null>): Ref<Part> {
    const part = ref<Part>({ from: 0, to: 2 * MARGIN })
    let frame: HTMLElement | null = null
    let asked = 0

    function look(): void {
        asked = 0
        const box = element.value?.getBoundingClientRect()
        const around = frame?.getBoundingClientRect()
        if (!box || !around || !element.value) {
            return
        }
        // The picture may be drawn smaller than it is.
        const scale = box.height / (element.value.offsetHeight || 1) || 1
        const from = Math.floor(((around.top - box.top) / scale - MARGIN) / STEP) * STEP
        const to = Math.ceil(((around.bottom - box.top) / scale + MARGIN) / STEP) * STEP
        if (from !== part.value.from || to !== part.value.to) {
            part.value = { from, to }
        }
    }

    function ask(): void {
        asked ||= requestAnimationFrame(look)
    }

    const resized = new ResizeObserver(ask)
    onMounted(() => {
        frame = element.value?.closest<HTMLElement>('[data-scrolls]') ?? null
        frame?.addEventListener('scroll', ask, { passive: true })
        for (const each of [frame, element.value]) {
            if (each) {
                resized.observe(each)
            }
        }
        look()
    })
    onBeforeUnmount(() => {
        cancelAnimationFrame(asked)
        frame?.removeEventListener('scroll', ask)
        resized.disconnect()
    })
    return part
}
