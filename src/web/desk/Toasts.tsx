import { createContext, useCallback, useContext, useEffect, useMemo, useRef, useState, type ReactNode } from 'react'
import { t } from './words'

const SHOWN_FOR = 10_000

interface Toast {
  id: number
  text: string
  undo?: () => unknown
}

const ToastsContext = createContext<(text: string, undo?: () => unknown) => void>(() => undefined)

/** Says what was done, for ten seconds, with the way to undo it. An undo that fails is said too. */
export function useToast() {
  return useContext(ToastsContext)
}

export function ToastsProvider({ children }: { children: ReactNode }) {
  const [toasts, setToasts] = useState<Toast[]>([])
  const next = useRef(0)
  const close = useCallback((id: number) => setToasts((all) => all.filter((toast) => toast.id !== id)), [])
  const show = useCallback((text: string, undo?: () => unknown) => {
    setToasts((all) => [...all.slice(-2), { id: next.current++, text, undo }])
  }, [])
  const undo = useCallback(
    async (toast: Toast) => {
      close(toast.id)
      try {
        await toast.undo?.()
      } catch (failed) {
        show(failed instanceof Error ? failed.message : String(failed))
      }
    },
    [close, show],
  )
  const list = useMemo(
    () => toasts.map((toast) => <ToastLine key={toast.id} toast={toast} close={close} onUndo={undo} />),
    [toasts, close, undo],
  )
  return (
    <ToastsContext value={show}>
      {children}
      <div className="toasts" role="status" aria-live="polite">
        {list}
      </div>
    </ToastsContext>
  )
}

interface ToastLineProps {
  toast: Toast
  close: (id: number) => void
  onUndo: (toast: Toast) => Promise<void>
}

function ToastLine({ toast, close, onUndo }: ToastLineProps) {
  const [held, setHeld] = useState(false)
  useEffect(() => {
    if (held) return
    const timer = setTimeout(() => close(toast.id), SHOWN_FOR)
    return () => clearTimeout(timer)
  }, [toast.id, close, held])
  return (
    <div
      className="toast-line"
      onMouseEnter={() => setHeld(true)}
      onMouseLeave={() => setHeld(false)}
      onFocus={() => setHeld(true)}
      onBlur={() => setHeld(false)}
    >
      <span>{toast.text}</span>
      {toast.undo && (
        <button type="button" aria-label={t('undoText', { text: toast.text })} onClick={() => void onUndo(toast)}>
          {t('undo')}
        </button>
      )}
      <button type="button" aria-label={t('closeThisMessage')} onClick={() => close(toast.id)}>
        ×
      </button>
    </div>
  )
}
