import { reactive } from 'vue'

/** Something the user can do, by name in the palette and by its shortcut. */
export interface Action {
    name: string
    shortcut?: string
    run: () => void
}

/** What dialogs are open; any view can open them. */
export const open = reactive({
    palette: false,
    add: false,
    /** The gap that a new block is to go to: its base, and its bus. */
    addAt: undefined as { base: string; bus: string } | undefined,
    /** What the library is searched for when a block is added. */
    addFilter: '',
    wiring: false,
    /** Change of the board. */
    board: false,
    /** Copied blocks that the wiring plan is to begin with. */
    paste: undefined as string | undefined,
    /** Whether these are to stand beside the ones that they were copied from. */
    duplicates: false,
    findings: false,
    /** What is to be done with the selected block, as soon as Compose shows it. */
    forSelection: undefined as 'rename' | 'duplicate' | 'copy' | 'remove' | undefined,
})

export function isTyping(event: KeyboardEvent): boolean {
    const target = event.target
    return (
        target instanceof HTMLElement &&
        (target.isContentEditable ||
            ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
            target.closest('.xterm') !== null)
    )
}

/** Whether a dialog is open, of whichever view: then the keyboard is its own, and no other one is put on top. */
export function isDialogOpen(): boolean {
    return document.querySelector('[role=dialog]') !== null
}

/** Closes what any view can open, as when another view is gone to. */
export function closeAll(): void {
    open.palette = false
    open.add = false
    open.wiring = false
    open.board = false
}
