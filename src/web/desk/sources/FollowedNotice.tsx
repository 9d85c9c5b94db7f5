import { Link } from 'react-router'
import type { CalendarEvent } from '../types'
import { useUndo } from '../changes/Changes'
import { useOrganisation } from '../session/queries'
import { useRefresh } from '../refresh'
import { useToast } from '../Toasts'
import { useAttempt, useWrite } from '../useWrite'
import { saySince } from '../work/failures'
import { useSourceOf } from './queries'
import { t } from './words'

/** That an event is its source's, and what can be done with it all the same. */
export function FollowedNotice({ stored }: { stored: CalendarEvent }) {
  const source = useSourceOf(stored.id).data
  const organisation = useOrganisation()
  const write = useWrite()
  const attempt = useAttempt()
  const refresh = useRefresh()
  const toast = useToast()
  const undo = useUndo()
  const takeOver = () =>
    void attempt(async () => {
      const done = await write('DELETE', `/events/${stored.id}/source`)
      await refresh.event(stored.id)
      toast(t('isYoursNow', { title: stored.title }), () => undo(done.actId))
    })
  return (
    <div className="notice state-notice">
      <p>
        {t('comesFrom')}{' '}
        {source?.mayManage ? <Link to={`/intake/sources/${source.id}`}>{source.name}</Link> : <b>{source?.name}</b>}
        {source?.rightAt && `, ${t('rightAsOf', { time: saySince(source.rightAt, organisation) })}`}. {t('whatMayBeChanged')}
      </p>
      <button type="button" className="btn btn-outline-ink" onClick={takeOver}>
        {t('takeItOver')}
      </button>
    </div>
  )
}
