import { useEffect, useEffectEvent } from 'react'
import { isTyping } from '../useKeys'
import { useToast } from '../Toasts'
import { useUndo } from './Changes'
import { takeLastAct } from './lastActs'
import { t } from './words'

/** Ctrl+Z takes back what this tab did last, while nobody is typing. */
export function useUndoKey(): void {
  const undo = useUndo()
  const toast = useToast()
  const takeBack = useEffectEvent(() => {
    const act = takeLastAct()
    if (act === undefined) toast(t('nothingToTakeBack'))
    else void undo(act, true)
  })
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (event.key.toLowerCase() !== 'z' || !(event.ctrlKey || event.metaKey) || event.shiftKey || event.altKey) return
      if (isTyping(event.target) || document.querySelector('[role=dialog]')) return
      event.preventDefault()
      takeBack()
    }
    document.addEventListener('keydown', onKeyDown)
    return () => document.removeEventListener('keydown', onKeyDown)
  }, [])
}
