import { ref, watchEffect } from 'vue'

const stored = localStorage.getItem('theme')
const dark = window.matchMedia?.('(prefers-color-scheme: dark)').matches ?? false

/** The colours in use; the system's until the user chooses. */
export const theme = ref<'light' | 'dark'>(
    stored === 'light' || stored === 'dark' ? stored : dark ? 'dark' : 'light',
)

watchEffect(() => {
    document.documentElement.dataset.theme = theme.value
})

export function toggleTheme(): void {
    theme.value = theme.value === 'light' ? 'dark' : 'light'
    localStorage.setItem('theme', theme.value)
}
