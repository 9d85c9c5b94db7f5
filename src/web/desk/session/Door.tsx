import type { ReactNode } from 'react'

/** The screens in front of the desk: sign-in, invitation, new password. */
export function Door({ children }: { children: ReactNode }) {
  return (
    <main className="sign-in">
      <div className="door">
        <p className="door-mark">
          <img src="/mark.svg" alt="" width="32" height="32" /> <span className="wordmark">valtro</span>
        </p>
        {children}
      </div>
    </main>
  )
}
