import { ref } from 'vue'
import type { RailSizes } from './railLayout'

/** How near the picture is: near enough for tags and sizes, or far enough to see a large platform at once. */
export type Zoom = 'near' | 'far'

export const SIZES: Record<Zoom, RailSizes> = {
    near: { card: 138, gap: 72, space: 8, row: 144 },
    far: { card: 96, gap: 44, space: 5, row: 74 },
}

const KEY = 'zoom'

export const zoom = ref<Zoom>(localStorage.getItem(KEY) === 'far' ? 'far' : 'near')

export function setZoom(wanted: Zoom): void {
    zoom.value = wanted
    localStorage.setItem(KEY, wanted)
}
