import { createContext, useCallback, useContext, useState, type ReactNode } from 'react'
import { Problem } from '../Problem'
import { call } from '../api'
import type { Foreseen, ChangePreview, ChangeRequest, ChangeDone } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { listed } from '../catalogue'
import { t } from './words'

/** @property scope The scope that was meant when the change was handed in; it can still be chosen. */
export type Asked = Omit<ChangeRequest, 'scope' | 'keep'> & { scope?: ChangeRequest['scope'] }

/** The dialog is loaded when it is first needed. Where it does not come, that is said as any refusal is, and what was typed stays. */
const loadDialog = () =>
  import('./ScopeDialog').catch(() => {
    throw new Problem(0, '', t('questionNotLoaded'), {})
  })

interface Pending {
  ScopeDialog: Awaited<ReturnType<typeof loadDialog>>['ScopeDialog']
  eventId: string
  asked: Asked
  preview: ChangePreview
  resolve: (done: ChangeDone | null) => void
  reject: (problem: Problem) => void
}

type Change = (eventId: string, asked: Asked) => Promise<ChangeDone | null>

const ChangesContext = createContext<Change>(() => Promise.resolve(null))

/**
 * Describes a change, asks which dates it is for when there is a choice, makes it, and offers to undo it.
 * The promise is null when the person thought better of it, and fails with the problem when it was refused.
 */
export function useChange(): Change {
  return useContext(ChangesContext)
}

const said = { edit: 'titleIsSaved', cancel: 'titleIsCancelled', remove: 'titleIsRemoved', restore: 'titleIsBack' } as const

export function ChangesProvider({ children }: { children: ReactNode }) {
  const [pending, setPending] = useState<Pending | null>(null)
  const write = useWrite()
  const toast = useToast()
  const undo = useUndo()

  const make = useCallback(
    async (eventId: string, request: ChangeRequest) => {
      const done = await write('POST', `/events/${eventId}/changes`, request)
      const asks = done.asksFor.length > 0 ? sayAsked(done.asksFor) : ''
      if (done.waits && done.actId === nothing) toast(t('yourChangeToTitleIs', { title: done.title }))
      else if (done.waits) toast(t('titleIsHandedInIt', { title: done.title }), () => undo(done.actId))
      else if (done.actId === nothing) toast(asks || t('titleIsAsItWas', { title: done.title }))
      else toast([t(said[request.act], { title: done.title }), asks].join(' ').trim(), () => undo(done.actId))
      return done
    },
    [write, toast, undo],
  )

  const change = useCallback<Change>(
    async (eventId, asked) => {
      const request = { ...asked, scope: asked.scope ?? null, keep: null }
      const preview = await call('POST', `/events/${eventId}/changes/preview`, request)
      if (!preview.hasChoice && preview.scopes[0]?.lost.length === 0 && preview.newlySees.length === 0) {
        const reason = preview.scopes[0].reason
        if (reason) throw new Problem(400, '/problems/refused', reason, {})
        return make(eventId, { ...request, scope: 'every' })
      }
      const { ScopeDialog } = await loadDialog()
      return new Promise((resolve, reject) => setPending({ ScopeDialog, eventId, asked, preview, resolve, reject }))
    },
    [make],
  )

  const choose = async (scope: ChangeRequest['scope'], keep: string[]) => {
    if (!pending) return
    try {
      pending.resolve(await make(pending.eventId, { ...pending.asked, scope, keep }))
      setPending(null)
    } catch (failed) {
      pending.reject(failed instanceof Problem ? failed : new Problem(0, '', String(failed)))
      setPending(null)
    }
  }
  const leave = () => {
    pending?.resolve(null)
    setPending(null)
  }
  return (
    <ChangesContext value={change}>
      {children}
      {pending && (
        <pending.ScopeDialog
          act={pending.asked.act}
          meant={pending.asked.scope ?? undefined}
          preview={pending.preview}
          onChoose={choose}
          onLeave={leave}
        />
      )}
    </ChangesContext>
  )
}

/** “The editors of Whole school are asked whether it may be shown there.” */
export function sayAsked(calendars: string[]): string {
  return t('theEditorsOfCalendarsAre', { calendars: listed(calendars) })
}

const nothing = '00000000-0000-0000-0000-000000000000'

/**
 * Takes back all that one press of a button did. Where that is more than one event, it first says what it would do; not so where it
 * was done a moment ago, and is only one press away again.
 */
export function useUndo() {
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  return useCallback(
    async function undo(actId: string, isJustDone = false): Promise<void> {
      const takeBack = async () => {
        const done = await write('POST', `/acts/${actId}/undo`)
        toast(t('itIsAsItWas'), () => undo(done.actId, true))
      }
      await attempt(async () => {
        if (isJustDone) return takeBack()
        const foreseen = await call('GET', `/acts/${actId}/undo`)
        if (foreseen.events > 1) toast(sayForeseen(foreseen), takeBack)
        else await takeBack()
      })
    },
    [attempt, write, toast],
  )
}

function sayForeseen({ events, removed, newlySees, seesLess }: Foreseen): string {
  const said = [t('eventsWillBeAsTheyWere', { count: events }), removed > 0 ? t('goToTheBin', { count: removed }) : '']
  return [...said, ...[...newlySees, ...seesLess].map((one) => `${one}.`)].filter(Boolean).join(' ')
}
