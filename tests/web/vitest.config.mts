import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
    plugins: [react()],
    test: {
        // Where the school is, whatever the machine says.
        env: { TZ: 'America/Halifax' },
        setupFiles: ['./clock.ts'],
        // Frames stay empty: nothing is fetched here.
        environmentOptions: {
            happyDOM: { settings: { disableIframePageLoading: true, handleDisabledFileLoadingAsSuccess: true } },
        },
        // How long a test takes says something of the machine beside which others run, and nothing of the code.
        testTimeout: 60_000,
    },
})
