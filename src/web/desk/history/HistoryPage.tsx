import { Link, useNavigate, useParams } from 'react-router'
import { call } from '../api'
import type { Revision } from '../types'
import { useUndo } from '../changes/Changes'
import { Differences } from '../changes/Differences'
import { sayAgo } from '../Delivery'
import { NothingHere } from '../NothingHere'
import { useEvent } from '../event/queries'
import { useRevisions } from './queries'
import { useRefresh } from '../refresh'
import { useToast } from '../Toasts'
import { t } from './words'

const acts: Record<Revision['act'], string> = {
  made: t('madeIt'),
  changed: t('changedIt'),
  cancelled: t('cancelledDates'),
  removed: t('removedItOrDatesOf'),
  restored: t('restoredIt'),
  undone: t('undidTheLastChange'),
}

/** Every save of an event, and the way back to any of them. */
export function HistoryPage() {
  const { id = '' } = useParams()
  const calendarEvent = useEvent(id, null)
  const revisions = useRevisions(id)
  const restore = useRestore(id)
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
            {revision.mayRestore && (
              <button
                type="button"
                className="btn btn-outline-ink"
                onClick={() => restore(revision.version, calendarEvent.data.version ?? 0)}
              >
                {t('makeItAsItWas')}
              </button>
            )}
          </li>
        ))}
      </ol>
    </main>
  )
}

function useRestore(id: string) {
  const refresh = useRefresh()
  const toast = useToast()
  const undo = useUndo()
  const navigate = useNavigate()
  return async (version: number, now: number) => {
    try {
      const done = await call('POST', `/events/${id}/revisions/${version}/restore?now=${now}`)
      await refresh.everything()
      await refresh.event(id)
      toast(t('itIsAsItWas'), () => void undo(done.actId))
      await navigate(`/events/${id}`)
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
}
