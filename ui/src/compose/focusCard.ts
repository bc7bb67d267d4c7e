const PATIENCE = 3000
const BETWEEN = 50

/** Gives the focus to the card of a block as soon as it is drawn and no dialog is open any more, so that keys go on from there. */
export function focusCard(block: string): void {
    const end = Date.now() + PATIENCE
    const look = (): void => {
        const card = document.querySelector<HTMLElement>(`[data-card][data-block="${CSS.escape(block)}"]`)
        if (card && !document.querySelector('[role=dialog]')) {
            // A person who types already is left alone.
            if (!document.activeElement?.matches('input, textarea, select')) {
                card.focus()
            }
        } else if (Date.now() < end) {
            window.setTimeout(look, BETWEEN)
        }
    }
    window.setTimeout(look, BETWEEN)
}
