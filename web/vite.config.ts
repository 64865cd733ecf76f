import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { offline } from './vite/offline.ts'
import { squeeze } from './vite/squeeze.ts'

export default defineConfig({
  plugins: [react(), tailwindcss(), offline, squeeze],
  build: { assetsInlineLimit: 0, emptyOutDir: true },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})
