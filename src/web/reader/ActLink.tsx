import type { AnchorHTMLAttributes, MouseEvent } from 'react'
import { usePage } from './page'

interface ActLinkProps extends AnchorHTMLAttributes<HTMLAnchorElement> {
  onPress: (event: MouseEvent<HTMLElement>) => void
  /** Whether it is the one that is chosen. */
  pressed?: boolean
  /** Whether what it opens is open. */
  expanded?: boolean
  /** It leads nowhere at the moment, but keeps its place and the focus. */
  isOff?: boolean
}

/** What leads to its address without a script, and with one does here what it says. */
export function ActLink({ onPress, pressed, expanded, isOff, href, className, tabIndex, children, ...rest }: ActLinkProps) {
  const { isAlive } = usePage()
  return (
    <a
      {...rest}
      className={pressed ? `${className ?? ''} is-pressed` : className}
      href={isOff ? undefined : href}
      // Machines that follow every link would turn over the months for ever.
      rel={href?.startsWith('?') ? 'nofollow' : undefined}
      role={isAlive ? 'button' : undefined}
      aria-pressed={isAlive ? pressed : undefined}
      aria-expanded={isAlive ? expanded : undefined}
      aria-disabled={isOff || undefined}
      tabIndex={tabIndex ?? (isOff ? 0 : undefined)}
      onClick={(event) => {
        // A new tab or window is asked for in the usual ways.
        if (event.ctrlKey || event.metaKey || event.shiftKey) return
        event.preventDefault()
        if (!isOff) onPress(event)
      }}
      onKeyDown={(event) => {
        if (event.key !== ' ') return
        event.preventDefault()
        event.currentTarget.click()
      }}
    >
      {children}
    </a>
  )
}
