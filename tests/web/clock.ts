import { vi } from 'vitest'
import { moment } from './moment'

/* What time it is in every test, whatever the machine says: a Monday at eight in the morning in Halifax. Timers go on. */
vi.useFakeTimers({ toFake: ['Date'], now: new Date(moment) })
