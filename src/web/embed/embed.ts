/*
 * Stands on other people's pages: puts a frame where the snippet says, and keeps it as high as what is in it.
 * Small and without dependencies, so that any page can load it: as a script of the old kind, as a module, from a copy, or later.
 */
;(() => {
  const page = window as Window & { valtroEmbeds?: boolean }
  // Snippets that are pasted twice bring the script twice.
  if (page.valtroEmbeds) return
  page.valtroEmbeds = true

  const SPOT = '[data-valtro]'
  const frames = new Map<Window, HTMLIFrameElement>()
  const origins = new WeakMap<HTMLIFrameElement, string>()

  const WIDE = 560

  /** What a view takes at a width, until the frame itself says how high it is: so that the page around it hardly moves. */
  function likelyHeight(view: string, width: number, entries: number): number {
    const isNarrow = width < WIDE
    const head = isNarrow ? 250 : 165
    const foot = isNarrow ? 120 : 48
    switch (view.toLowerCase()) {
      case 'month':
        return isNarrow ? head + 230 + 150 + foot : head + 27 + 6 * 100 + foot
      case 'smallmonth':
        return head + 230 + 150 + foot
      case 'week':
        return isNarrow ? head + 7 * 110 + foot : head + 300 + foot
      case 'day':
        return head + 260 + foot
      default:
        return head + entries * 56 + foot
    }
  }

  /** Whether the page is dark behind a place: by the colour that shows there, else by what the page says of itself. */
  function schemeAt(spot: HTMLElement): 'light' | 'dark' {
    for (let element: HTMLElement | null = spot; element; element = element.parentElement) {
      const [red = 0, green = 0, blue = 0, opacity = 1] = (getComputedStyle(element).backgroundColor.match(/[\d.]+/g) ?? []).map(
        Number,
      )
      if (opacity > 0.5 && getComputedStyle(element).backgroundColor !== 'transparent')
        return red * 0.299 + green * 0.587 + blue * 0.114 < 128 ? 'dark' : 'light'
    }
    const says = getComputedStyle(document.documentElement).colorScheme
    return says.includes('dark') && (!says.includes('light') || matchMedia('(prefers-color-scheme: dark)').matches)
      ? 'dark'
      : 'light'
  }

  function tellScheme(): void {
    for (const [view, frame] of frames)
      if (frame.parentElement) view.postMessage({ valtroScheme: schemeAt(frame.parentElement) }, origins.get(frame) ?? '*')
  }

  function place(spot: HTMLElement): void {
    if (spot.dataset.valtroPlaced) return
    let address: URL
    try {
      address = new URL(spot.dataset.valtro ?? '', location.href)
    } catch {
      return
    }
    if (!/^https?:$/.test(address.protocol)) return
    spot.dataset.valtroPlaced = 'yes'
    const frame = document.createElement('iframe')
    frame.title = spot.dataset.title ?? 'Calendar'
    frame.allow = 'clipboard-write'
    const isWide = spot.clientWidth >= WIDE
    const reserved = isWide ? parseFloat(getComputedStyle(spot).minHeight) : 0
    const height = reserved || likelyHeight(spot.dataset.view ?? 'month', spot.clientWidth, Number(spot.dataset.entries) || 8)
    if (!isWide) spot.style.minHeight = `${height}px`
    frame.style.cssText = `display:block;width:100%;height:${height}px;border:0`
    address.searchParams.set('scheme', schemeAt(spot))
    frame.src = address.href
    origins.set(frame, address.origin)
    spot.append(frame)
    if (frame.contentWindow) frames.set(frame.contentWindow, frame)
  }

  window.addEventListener('message', (message: MessageEvent) => {
    const frame = message.source && frames.get(message.source as Window)
    const height: unknown = message.data?.valtroHeight
    if (!frame || message.origin !== origins.get(frame) || typeof height !== 'number') return
    frame.style.height = `${Math.min(Math.max(height, 80), 20_000)}px`
    if (frame.parentElement) frame.parentElement.style.minHeight = '0'
  })

  function placeAll(): void {
    document.querySelectorAll<HTMLElement>(SPOT).forEach(place)
  }

  // What a page puts in later is found too.
  function watch(): void {
    placeAll()
    new MutationObserver(placeAll).observe(document.documentElement, { childList: true, subtree: true })
    // Sites turn dark by a class or an attribute of their root, or as the reader's machine does.
    const dressed = new MutationObserver(tellScheme)
    for (const root of [document.documentElement, document.body]) dressed.observe(root, { attributes: true })
    matchMedia('(prefers-color-scheme: dark)').addEventListener('change', tellScheme)
  }

  if (document.readyState === 'loading') document.addEventListener('DOMContentLoaded', watch)
  else watch()
})()
