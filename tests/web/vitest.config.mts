import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

export default defineConfig({
    plugins: [react()],
    // Where the school is, whatever the machine says.
    test: { env: { TZ: 'America/Halifax' }, setupFiles: ['./clock.ts'] },
})
