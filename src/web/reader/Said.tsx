/**
 * A date, a time or a number in words. Programs write them differently, also in the same language: what the server wrote
 * stays when the script takes the page over, and becomes the reader's own with the next change.
 */
export function Said({ children, className }: { children: string; className?: string }) {
  return (
    <span className={className} suppressHydrationWarning>
      {children}
    </span>
  )
}
