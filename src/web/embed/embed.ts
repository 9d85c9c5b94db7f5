/*
 * Stands on other people's pages: puts a frame where the snippet says, and keeps it as high as what is in it.
 * Small, without dependencies, and a script of the old kind, so that any page can load it.
 */
;(() => {
  const script = document.currentScript instanceof HTMLScriptElement ? document.currentScript : null
  const frames = new Map<Window, HTMLIFrameElement>()

  function place(spot: HTMLElement): void {
    const address = new URL(spot.dataset.valtro ?? '', script?.src ?? location.href)
    if (spot.dataset.valtroPlaced || !/^https?:$/.test(address.protocol)) return
    spot.dataset.valtroPlaced = 'yes'
    const frame = document.createElement('iframe')
    frame.src = address.href
    frame.title = spot.dataset.title ?? 'Calendar'
    frame.loading = 'lazy'
    frame.style.cssText = 'display:block;width:100%;height:480px;border:0'
    spot.append(frame)
    if (frame.contentWindow) frames.set(frame.contentWindow, frame)
  }

  window.addEventListener('message', (message: MessageEvent) => {
    const frame = message.source && frames.get(message.source as Window)
    const height: unknown = message.data?.valtroHeight
    if (!frame || message.origin !== new URL(frame.src).origin || typeof height !== 'number') return
    frame.style.height = `${Math.min(Math.max(height, 80), 20_000)}px`
  })

  function placeAll(): void {
    document.querySelectorAll<HTMLElement>('[data-valtro]').forEach(place)
  }

  if (document.readyState === 'loading') document.addEventListener('DOMContentLoaded', placeAll)
  else placeAll()
})()
