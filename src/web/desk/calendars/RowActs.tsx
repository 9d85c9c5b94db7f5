import { useState } from 'react'
import Dropdown from 'react-bootstrap/Dropdown'
import { Link } from 'react-router'
import { call, type Calendar } from '../api'
import { useRefresh } from '../queries'
import { useToast } from '../Toasts'
import { MergeDialog, RemoveDialog } from './LifeDialogs'

/** What can be done with a calendar as a whole. */
export function RowActs({ calendar, others }: { calendar: Calendar; others: Calendar[] }) {
  const [asking, setAsking] = useState<'merge' | 'remove' | null>(null)
  const refresh = useRefresh()
  const toast = useToast()
  const archive = async (isArchived: boolean, isUndo = false) => {
    try {
      await call(isArchived ? 'POST' : 'DELETE', `/calendars/${calendar.id}/archive`)
      await refresh.everything()
      const said = isArchived
        ? `${calendar.name} is archived. Its page, embeds and feed stay as they are.`
        : `${calendar.name} is in use again.`
      toast(said, isUndo ? undefined : () => void archive(!isArchived, true))
    } catch (failed) {
      toast(failed instanceof Error ? failed.message : String(failed))
    }
  }
  return (
    <>
      {calendar.mayManage && (
        <Link to={`/calendars/${calendar.id}`} aria-label={`Settings of ${calendar.name}`}>
          Settings
        </Link>
      )}
      {calendar.mayPublish && (
        <Link to={`/calendars/${calendar.id}/publishing`} aria-label={`Publish ${calendar.name}`}>
          Publish
        </Link>
      )}
      {calendar.mayManage && (
        <Dropdown align="end" className="row-more">
          <Dropdown.Toggle aria-label={`More for ${calendar.name}`}>More</Dropdown.Toggle>
          <Dropdown.Menu popperConfig={{ strategy: 'fixed' }} renderOnMount>
            <Dropdown.Item as={Link} to={`/calendars/new?like=${calendar.id}`}>
              New calendar with these settings
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => archive(!calendar.isArchived)}>
              {calendar.isArchived ? 'Take out of the archive' : 'Archive'}
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => setAsking('merge')} disabled={others.length === 0}>
              Merge into another …
            </Dropdown.Item>
            <Dropdown.Item as="button" onClick={() => setAsking('remove')}>
              Remove …
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      )}
      {asking === 'merge' && <MergeDialog calendar={calendar} others={others} onClose={() => setAsking(null)} />}
      {asking === 'remove' && <RemoveDialog calendar={calendar} onClose={() => setAsking(null)} />}
    </>
  )
}
