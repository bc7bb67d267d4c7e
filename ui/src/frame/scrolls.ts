import type { Directive } from 'vue'

const TAKES_KEYS =
    'a[href], button:enabled, input:enabled, select:enabled, textarea:enabled, summary, [tabindex="0"]'

const watched = new WeakMap<HTMLElement, () => void>()

/**
 * A part that scrolls is reached with Tab and scrolled by arrow keys also while nothing in it takes the keyboard, a list of
 * plain text or buttons that have to wait (WCAG 2.1, success criterion 2.1.1). As soon as something in it does, or it no
 * longer scrolls, it is no stop of its own.
 */
export const vScrolls: Directive<HTMLElement, undefined> = {
    mounted(part) {
        function look() {
            const scrolls = part.scrollHeight > part.clientHeight || part.scrollWidth > part.clientWidth
            if (scrolls && !part.querySelector(TAKES_KEYS)) {
                part.setAttribute('tabindex', '0')
            } else {
                part.removeAttribute('tabindex')
            }
        }
        // What is in it changes without its own component being drawn again, so it is watched and not only updated.
        const content = new MutationObserver(look)
        content.observe(part, {
            subtree: true,
            childList: true,
            characterData: true,
            attributes: true,
            attributeFilter: ['disabled', 'open'],
        })
        const size = new ResizeObserver(look)
        size.observe(part)
        watched.set(part, () => {
            content.disconnect()
            size.disconnect()
        })
        look()
    },
    beforeUnmount(part) {
        watched.get(part)?.()
    },
}
