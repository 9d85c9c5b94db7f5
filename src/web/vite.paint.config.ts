import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

/** The reader as one script for the server, which runs it where nothing of a browser is. */
export default defineConfig({
  plugins: [react()],
  define: { 'process.env.NODE_ENV': '"production"' },
  publicDir: false,
  build: {
    outDir: '../Valtro.Server/wwwroot/.vite',
    emptyOutDir: false,
    target: 'es2022',
    lib: { entry: 'reader/paint.tsx', formats: ['iife'], name: 'reader', fileName: () => 'paint.js' },
    rollupOptions: {
      output: {
        // What react-dom asks for while it is loaded, and never uses to make a string.
        banner:
          'globalThis.TextEncoder??=class{encode(){return new Uint8Array()}};globalThis.MessageChannel??=class{port1={};port2={postMessage(){}}};globalThis.AbortController??=class{};globalThis.queueMicrotask??=(task)=>Promise.resolve().then(task);globalThis.setTimeout??=()=>0;globalThis.clearTimeout??=()=>{};globalThis.performance??={now:()=>0};globalThis.navigator??={languages:[]};globalThis.console??={log(){},warn(){},error(){}};',
      },
    },
  },
})
