/** By the device's own share dialog where it has one, else by copying the address. */
export async function share(title: string, url: string): Promise<'shared' | 'copied' | 'failed'> {
  if (navigator.share) {
    try {
      await navigator.share({ title, url })
      return 'shared'
    } catch (refused) {
      // The reader closed the dialog: that is no reason to copy behind their back.
      if (refused instanceof DOMException && refused.name === 'AbortError') return 'shared'
    }
  }
  try {
    await navigator.clipboard.writeText(url)
    return 'copied'
  } catch {
    return 'failed'
  }
}
