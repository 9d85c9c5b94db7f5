import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

const server = 'http://127.0.0.1:5080'

export default defineConfig({
  plugins: [react()],
  build: {
    outDir: '../Valtro.Server/wwwroot',
    emptyOutDir: true,
    manifest: true,
    // Nothing inline: the pages' content security policy allows no data: fonts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
    rollupOptions: {
      input: ['desk/index.html', 'reader/main.ts', 'reader/entry.ts', 'embed/embed.ts'],
      output: {
        // The snippet on other people's pages names this file: it can never be renamed.
        entryFileNames: (chunk) => (chunk.name === 'embed' ? 'embed.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
  server: {
    port: 5173,
    strictPort: true,
    proxy: { '/api': server, '/c': server, '/s': server, '/oembed': server, '/embed.js': server },
  },
})
