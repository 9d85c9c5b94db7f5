import type { ReactNode } from 'react'

/** What can do nothing without a script has its place, but does not show until the page is alive. */
export function NeedsScript({ children }: { children: ReactNode }) {
  return <span className="needs-script">{children}</span>
}
