import { ref, watch, type Ref } from 'vue'

const KEY = 'author'
const author = ref(read())

function read(): string {
    try {
        return localStorage.getItem(KEY) ?? ''
    } catch {
        return ''
    }
}

watch(author, (name) => {
    try {
        localStorage.setItem(KEY, name)
    } catch {
        // Without storage the name is asked for again next time.
    }
})

/** What the person at this browser calls themselves, as long as there are no accounts. */
export function useAuthor(): Ref<string> {
    return author
}
