import { useState } from 'react'
import Dropdown from 'react-bootstrap/Dropdown'
import { Link } from 'react-router'
import type { Calendar } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { useToast } from '../Toasts'
import { MergeDialog, RemoveDialog } from './LifeDialogs'
import { t } from './words'

/** What can be done with a calendar as a whole. */
export function RowActs({ calendar, others }: { calendar: Calendar; others: Calendar[] }) {
  const [asking, setAsking] = useState<'merge' | 'remove' | null>(null)
  const write = useWrite()
  const attempt = useAttempt()
  const toast = useToast()
  const archive = (isArchived: boolean, isUndo = false) =>
    attempt(async () => {
      await write(isArchived ? 'POST' : 'DELETE', `/calendars/${calendar.id}/archive`)
      const said = isArchived
        ? t('nameIsArchivedItsPage', { name: calendar.name })
        : t('nameIsInUseAgain', { name: calendar.name })
      toast(said, isUndo ? undefined : () => archive(!isArchived, true))
    })
  return (
    <>
      {calendar.mayManage && (
        <Link to={`/calendars/${calendar.id}`} aria-label={t('settingsOfName', { name: calendar.name })}>
          {t('settings')}
        </Link>
      )}
      {calendar.mayPublish && (
        <Link to={`/calendars/${calendar.id}/publishing`} aria-label={t('publishName', { name: calendar.name })}>
          {t('publish')}
        </Link>
      )}
      {calendar.mayManage && (
        <Dropdown align="end" className="row-more">
          <Dropdown.Toggle aria-label={t('moreForName', { name: calendar.name })}>{t('more')}</Dropdown.Toggle>
          <Dropdown.Menu popperConfig={{ strategy: 'fixed' }} renderOnMount>
            <Dropdown.Item as={Link} to={`/calendars/new?like=${calendar.id}`}>
              {t('newCalendarWithTheseSettings')}
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => archive(!calendar.isArchived)}>
              {calendar.isArchived ? t('takeOutOfTheArchive') : t('archive')}
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => setAsking('merge')} disabled={others.length === 0}>
              {t('mergeIntoAnother')}
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => setAsking('remove')}>
              {t('remove')}
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      )}
      {asking === 'merge' && <MergeDialog calendar={calendar} others={others} onClose={() => setAsking(null)} />}
      {asking === 'remove' && <RemoveDialog calendar={calendar} onClose={() => setAsking(null)} />}
    </>
  )
}
