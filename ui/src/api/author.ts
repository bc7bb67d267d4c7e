import { ref, watch, type Ref } from 'vue'

const NAME = 'author'
const BROWSER = 'browser'

/** A random UUID, also where the page does not come over https. */
export function randomId(): string {
    const bytes = crypto.getRandomValues(new Uint8Array(16))
    bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x40
    bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80
    const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')
    return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

function kept(key: string): string {
    try {
        return localStorage.getItem(key) ?? ''
    } catch {
        return ''
    }
}

function keep(key: string, value: string): void {
    try {
        localStorage.setItem(key, value)
    } catch {
        // Without storage it is as long as the page.
    }
}

const author = ref(kept(NAME))
watch(author, (name) => keep(NAME, name))

/** What the person at this browser calls themselves, as long as there are no accounts. */
export function useAuthor(): Ref<string> {
    return author
}

function number(): string {
    const known = kept(BROWSER)
    const id = /^[0-9a-f-]{36}$/.test(known) ? known : randomId()
    keep(BROWSER, id)
    return id
}

/** The number that this browser has given itself, the same in all its tabs. */
export const browser = number()

/** How a request says who makes it. */
export function authorHeader(): Record<string, string> {
    const name = author.value.trim()
    return { 'Polymetron-Author': name ? `${browser} ${encodeURIComponent(name)}` : browser }
}
