/** Where a page may be kept for when there is no network: open ones in windows of their own, never secret addresses or frames. */
export function keepPages(): void {
  if (!('serviceWorker' in navigator) || !location.pathname.startsWith('/c/') || window.parent !== window) return
  // Reading goes on without it.
  navigator.serviceWorker.register('/kept.js', { scope: '/c/' }).catch(() => undefined)
}

/** When the page that is shown was kept, if it is a kept copy: an instant. */
export function keptAt(): string | null {
  return document.querySelector('meta[name="kept-at"]')?.getAttribute('content') ?? null
}

/** The same of something that was fetched. */
export const keptAtOf = (answer: Response): string | null => answer.headers.get('x-kept-at')
