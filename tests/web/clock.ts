import { vi } from 'vitest'

/* What time it is in every test, whatever the machine says: a Monday at eight in the morning in Halifax. Timers go on. */
vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-11-23T12:00:00Z') })
