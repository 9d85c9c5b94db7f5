import { useToast } from './Toasts'
import { t } from './words'

/** Copies a text, and says so under a name. */
export function useCopy() {
  const toast = useToast()
  return (name: string, text: string) =>
    void navigator.clipboard.writeText(text).then(
      () => toast(t('copiedName', { name })),
      () => toast(t('theBrowserDoesNotLet')),
    )
}
