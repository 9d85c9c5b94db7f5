import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

// Where the school is, whatever the machine says; before anything asks for a time.
process.env.TZ = 'America/Halifax'

export default defineConfig({
    plugins: [react()],
    test: {
        // A thread for each file begins sooner than a process.
        pool: 'threads',
        setupFiles: ['./clock.ts'],
        // Frames stay empty: nothing is fetched here.
        environmentOptions: {
            happyDOM: { settings: { disableIframePageLoading: true, handleDisabledFileLoadingAsSuccess: true } },
        },
        // How long a test takes says something of the machine beside which others run, and nothing of the code.
        testTimeout: 60_000,
    },
})
