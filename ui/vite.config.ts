import tailwindcss from '@tailwindcss/vite'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
    plugins: [vue(), tailwindcss()],
    build: { target: 'es2022', chunkSizeWarningLimit: 700 },
    server: { proxy: { '/api': 'http://127.0.0.1:8440' } },
    test: { environment: 'jsdom' },
})
