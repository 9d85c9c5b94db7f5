import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

const server = 'http://127.0.0.1:5080'

export const together = {
  outDir: '../Valtro.Server/wwwroot',
  // Nothing inline: the pages' content security policy allows no data: fonts.
  assetsInlineLimit: 0,
  modulePreload: { polyfill: false },
  chunkSizeWarningLimit: 900,
}

export const css = {
  preprocessorOptions: {
    scss: {
      quietDeps: true,
      silenceDeprecations: ['import' as const, 'global-builtin' as const, 'color-functions' as const, 'if-function' as const],
    },
  },
}

/** The desk, and what lies beside it; the reader is built after it (vite.reader.config.ts), and once more for the server (vite.paint.config.ts). */
export default defineConfig({
  plugins: [react()],
  css,
  build: { ...together, emptyOutDir: true, manifest: '.vite/desk.json', rollupOptions: { input: 'desk/index.html' } },
  server: {
    port: 5173,
    strictPort: true,
    proxy: { '/api': server, '/c': server, '/s': server, '/oembed': server, '/embed.js': server },
  },
})
