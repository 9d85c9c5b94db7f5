import { Link } from 'react-router'
import { useFeedText } from './queries'
import { t } from './words'

/** More nobody reads; the file has all of it. */
const MOST_LINES = 400

/** What programs are told. */
export function FeedText({ id }: { id: string }) {
  const feed = useFeedText(id)
  const lines = feed.data?.split('\r\n') ?? []
  return (
    <>
      <p className="soft">
        {feed.error ? feed.error.message : feed.data === undefined ? t('feedLoads') : t('feedAbout')}{' '}
        <Link to={`/check?edition=${id}`}>{t('checkTheFeed')}</Link>
      </p>
      {lines.length > 0 && (
        <pre className="feed-text" tabIndex={0} aria-label={t('form_feed')}>
          {lines.slice(0, MOST_LINES).join('\n')}
        </pre>
      )}
      {lines.length > MOST_LINES && <p className="soft">{t('feedCut', { count: lines.length - MOST_LINES })}</p>}
    </>
  )
}
