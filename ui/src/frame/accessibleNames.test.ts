import { describe, expect, it } from 'vitest'

/** Elements without a role of their own: WAI-ARIA 1.2, section 5.2.8.6, forbids a name on them. */
const NAMELESS = /<(pre|div|span|p|code|b|i|em|strong|label)\b((?:[^>"]|"[^"]*")*)>/g

const COMPONENTS = import.meta.glob<string>('../**/*.vue', { query: '?raw', import: 'default', eager: true })

describe('accessible names', () => {
    it.each(Object.keys(COMPONENTS))('%s names only elements that have a role', (file) => {
        const named = [...(COMPONENTS[file] ?? '').matchAll(NAMELESS)]
            .map(([element, , attributes]) => ({ element, attributes: attributes ?? '' }))
            .filter(({ attributes }) => attributes.includes('aria-label') && !attributes.includes('role='))
        expect(named.map(({ element }) => element)).toEqual([])
    })

    it('are looked for in every component', () => {
        expect(Object.keys(COMPONENTS).length).toBeGreaterThan(50)
    })
})
