import { reactive } from 'vue'

/** The menu at the pointer: where it is and what it is about, a block or `group name`. */
export const menu = reactive({ about: undefined as string | undefined, x: 0, y: 0 })

/** Opens the menu; the keyboard's menu key gives no place, then it opens at the element. */
export function openMenu(event: MouseEvent, about: string): void {
    const box = (event.currentTarget as HTMLElement).getBoundingClientRect()
    const atPointer = event.clientX !== 0 || event.clientY !== 0
    menu.x = atPointer ? event.clientX : box.left + 12
    menu.y = atPointer ? event.clientY : box.bottom
    menu.about = about
}

export function closeMenu(): void {
    menu.about = undefined
}
