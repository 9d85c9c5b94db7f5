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
      input: ['reader/main.ts', 'reader/entry.ts', 'reader/front.ts', 'embed/embed.ts', 'kept/worker.ts'],
      output: {
        // The snippet on other people's pages names this file: it can never be renamed. Nor can what browsers keep pages with.
        entryFileNames: (chunk) =>
          chunk.name === 'embed' ? 'embed.js' : chunk.name === 'worker' ? 'kept.js' : 'assets/[name]-[hash].js',
      },
    },
  },
})
