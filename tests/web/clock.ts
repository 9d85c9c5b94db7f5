import { vi } from 'vitest'
import { moment } from './moment'

/* What time it is in every test, whatever the machine says: a Monday at eight in the morning in Halifax. Timers go on. */
vi.useFakeTimers({ toFake: ['Date'], now: new Date(moment) })

/* Nor does it matter how long a machine takes that does much else: what is waited for comes, or the test's own time ends. */
if (typeof document !== 'undefined') {
  const { configure } = await import('@testing-library/react')
  configure({ asyncUtilTimeout: 30_000 })
}
