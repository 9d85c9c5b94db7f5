import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Revision } from '../types'
import { useUndo } from '../changes/Changes'
import { Differences } from '../changes/Differences'
import { sayAgo } from '../Delivery'
import { NothingHere } from '../NothingHere'
import { useEvent } from '../event/queries'
import { usePutBack, useRevisions } from './queries'
import { useRefresh } from '../refresh'
import { useAttempt, useWrite } from '../useWrite'
import { Refusal } from '../Refusal'
import { useToast } from '../Toasts'
import { t } from './words'

const acts: Record<Revision['act'], string> = {
  made: t('madeIt'),
  changed: t('changedIt'),
  cancelled: t('cancelledDates'),
  removed: t('removedItOrDatesOf'),
  restored: t('restoredIt'),
  undone: t('undidTheLastChange'),
  fetched: t('itsSourceSaidSo'),
}

/** Every save of an event, and the way back to any of them. */
export function HistoryPage() {
  const { id = '' } = useParams()
  const calendarEvent = useEvent(id, null)
  const revisions = useRevisions(id)
  const restore = useRestore(id)
  const [chosen, setChosen] = useState<number | null>(null)
  const problem = calendarEvent.error ?? revisions.error
  if (problem) return <NothingHere detail={problem.message} />
  if (!calendarEvent.data || !revisions.data) return <p className="page">{t('opening')}</p>
  return (
    <main className="page history">
      <p className="soft">{t.rich('titleAllVersions', { title: calendarEvent.data.title }, <Link to={`/events/${id}`} />)}</p>
      <h1>{t('whatBecameOfTitle', { title: calendarEvent.data.title })}</h1>
      <ol>
        {revisions.data.map((revision) => (
          <li key={revision.version}>
            <h2>
              {revision.by} {acts[revision.act]} <span className="soft">{sayAgo(revision.at)}</span>
            </h2>
            <Differences differences={revision.differences} />
            {revision.mayRestore && chosen !== revision.version && (
              <button type="button" className="btn btn-outline-ink" onClick={() => setChosen(revision.version)}>
                {t('makeItAsItWas')}
              </button>
            )}
            {chosen === revision.version && (
              <PuttingBack
                id={id}
                version={chosen}
                onDo={() => restore(chosen, calendarEvent.data.version ?? 0)}
                onLeave={() => setChosen(null)}
              />
            )}
          </li>
        ))}
      </ol>
    </main>
  )
}

interface PuttingBackProps {
  id: string
  version: number
  onDo: () => Promise<void>
  onLeave: () => void
}

/** What an earlier version would change again, before it is put back. */
function PuttingBack({ id, version, onDo, onLeave }: PuttingBackProps) {
  const preview = usePutBack(id, version)
  if (preview.error) return <Refusal text={preview.error.message} />
  if (!preview.data) return <p className="soft">{t('opening')}</p>
  const { differences, newlySees, seesLess } = preview.data
  const isSame = differences.length === 0
  return (
    <div className="putting-back" role="status">
      <p>{isSame ? t('thatWouldChangeNothing') : t('thatWouldChange')}</p>
      <Differences differences={differences} />
      {[...newlySees, ...seesLess].map((line) => (
        <p key={line}>{line}.</p>
      ))}
      {!isSame && (
        <button type="button" className="btn btn-spruce" autoFocus onClick={() => void onDo()}>
          {t('makeItSo')}
        </button>
      )}{' '}
      <button type="button" className="btn btn-quiet" onClick={onLeave}>
        {t('leaveItAsItIs')}
      </button>
    </div>
  )
}

function useRestore(id: string) {
  const refresh = useRefresh()
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const undo = useUndo()
  const navigate = useNavigate()
  return async (version: number, now: number) =>
    attempt(async () => {
      const done = await write('POST', `/events/${id}/revisions/${version}/restore?now=${now}`)
      await refresh.event(id)
      toast(t('itIsAsItWas'), () => undo(done.actId))
      await navigate(`/events/${id}`)
    })
}
