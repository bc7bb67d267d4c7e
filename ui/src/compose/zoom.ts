import { ref } from 'vue'
import type { RailSizes } from './railLayout'

/** How near the picture is: near enough for tags and sizes, or far enough to see a large platform at once. */
export type Zoom = 'near' | 'far'

export const SIZES: Record<Zoom, RailSizes> = {
    near: { card: 130, gap: 72, space: 8, row: 74, line: 20, gapRow: 48 },
    far: { card: 96, gap: 44, space: 5, row: 74, line: 0, gapRow: 34 },
}

/** Height of a card, in pixels: with a line each for name and type, and room for chips. */
export function cardHeight(at: Zoom, chips: number): number {
    return at === 'far' ? 42 : 42 + chips
}

const KEY = 'zoom'

export const zoom = ref<Zoom>(localStorage.getItem(KEY) === 'far' ? 'far' : 'near')

export function setZoom(wanted: Zoom): void {
    zoom.value = wanted
    localStorage.setItem(KEY, wanted)
}

/** How much the picture is made smaller so that all of it can be seen; 1 for its own size. */
export const scale = ref(1)

/** Scales that are tried, largest first. */
export const SCALES = [1, 0.9, 0.8, 0.7, 0.6, 0.5, 0.42, 0.35, 0.3]
