/** Tells the page around an embed how high it is. Only a number leaves, so any page may hear it. */
export function reportHeight(): void {
  if (window.parent === window) return
  new ResizeObserver(() => {
    window.parent.postMessage({ valtroHeight: Math.ceil(document.documentElement.getBoundingClientRect().height) }, '*')
  }).observe(document.documentElement)
}
