import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { css, together } from './vite.config.ts'

/** What readers get: it shares nothing with the desk, so that no screen there changes what is fetched here. */
export default defineConfig({
  plugins: [react()],
  publicDir: false,
  css,
  build: {
    ...together,
    emptyOutDir: false,
    manifest: '.vite/reader.json',
    rollupOptions: {
      input: ['reader/main.ts', 'reader/entry.ts', 'reader/front.ts', 'embed/embed.ts'],
      output: {
        // The snippet on other people's pages names this file: it can never be renamed.
        entryFileNames: (chunk) => (chunk.name === 'embed' ? 'embed.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
})
