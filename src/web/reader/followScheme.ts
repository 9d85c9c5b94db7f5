/** Stays as light or dark as the page around an embed, where the edition lets it (the server said so when it painted). */
export function followScheme(): void {
  const root = document.documentElement
  if (window.parent === window || root.dataset.scheme === undefined) return
  window.addEventListener('message', (message: MessageEvent) => {
    const scheme: unknown = message.data?.valtroScheme
    if (message.source !== window.parent || (scheme !== 'light' && scheme !== 'dark')) return
    root.dataset.scheme = scheme
    if (root.style.colorScheme) root.style.colorScheme = scheme
  })
}
