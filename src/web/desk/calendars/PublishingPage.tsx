import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { Plate } from '../../shared/Plate'
import { apiAddress } from '../api'
import type { Calendar, Publishing } from '../types'
import { detailSaid } from '../openness'
import { TargetList } from '../elsewhere/TargetList'
import { SecretLinkSection } from './SecretLinkSection'
import { Copyable } from './Copyable'
import { DeliveriesOfCalendar } from '../deliveries/DeliveriesLink'
import { DeliveryLine } from '../Delivery'
import { NothingHere } from '../NothingHere'
import { useCalendar, usePublishing } from './queries'
import { t } from './words'

/** Everything needed to put a calendar on somebody's page or into their program. */
export function PublishingPage() {
  const { id = '' } = useParams()
  const calendar = useCalendar(id)
  const publishing = usePublishing(id)
  const problem = calendar.error ?? (publishing.data ? null : publishing.error)
  if (problem) return <NothingHere detail={problem.message} />
  if (!calendar.data || !publishing.data) return <p className="page">{t('opening')}</p>
  return (
    <main className="page">
      <p className="soft crumbs">{t.rich('calendarsNamePublish', { name: calendar.data.name }, <Link to="/calendars" />)}</p>
      <div className="page-head">
        <h1>
          <Plate code={calendar.data.plate} colour={calendar.data.colour} /> {calendar.data.name}
        </h1>
        <DeliveryLine delivery={publishing.data.delivery} />
        {publishing.data.isOpen && <DeliveriesOfCalendar id={id} />}
      </div>
      {!publishing.data.isOpen && (
        <p className="notice closed-notice" role="status">
          {t.rich('nameIsNotOpen', { name: calendar.data.name }, <b />)}{' '}
          {calendar.data.mayManage ? <Link to="/calendars">{t('openItInTheTable')}</Link> : t('anAdministratorCanOpenIt')}
        </p>
      )}
      {calendar.data.isArchived && (
        <p className="notice" role="status">
          {t('nameIsArchivedNobodyChanges', { name: calendar.data.name })}
        </p>
      )}
      <div className="publishing">
        <div className="ways">
          <Ways publishing={publishing.data} />
          <SecretLinkSection calendar={calendar.data} />
          <TargetList editionId={publishing.data.editionId} />
        </div>
        <Preview calendar={calendar.data} />
      </div>
    </main>
  )
}

function Ways({ publishing }: { publishing: Publishing }) {
  return (
    <>
      <section>
        <h2>{t('onAWebsite')}</h2>
        <Copyable name={t('snippetThatFits')} button={t('copyTheSnippet')} text={publishing.snippetThatFits} lines={4}>
          {t('forABlockWithScripts')}
        </Copyable>
        <Copyable name={t('plainFrame')} button={t('copyThePlainFrame')} text={publishing.snippetFixed} lines={3}>
          {t('forSitesThatStripScripts')}
        </Copyable>
      </section>
      <section>
        <h2>{t('inCalendarPrograms')}</h2>
        <div className="with-code">
          <div>
            <Copyable name={t('feedLink')} button={t('copyTheFeedLink')} text={publishing.feed}>
              {t('forProgramsThatAskFor')}
            </Copyable>
            <Copyable name={t('linkThatOpens')} button={t('copyTheWebcalLink')} text={publishing.webcal}>
              {t('aLinkForYourPage')}
            </Copyable>
          </div>
          <figure>
            <img
              src={apiAddress(`/calendars/${publishing.calendarId}/feed-code.svg`)}
              alt={t('codeOfTheLink')}
              width="148"
              height="148"
            />
            <figcaption>{t('forPostersAPhonesCamera')}</figcaption>
          </figure>
        </div>
      </section>
      <section>
        <h2>{t('asAPageOfIts')}</h2>
        <Copyable name={t('pageLink')} button={t('copyThePageLink')} text={publishing.page}>
          {t('forMailsAndForLearning')}
        </Copyable>
      </section>
    </>
  )
}

const widths = { phone: 390, sidebar: 300, column: 640 }
const widthNames = { phone: t('phone'), sidebar: t('sidebar'), column: t('column') }

type Seen = 'everyone' | 'link' | 'members'
const seenNames: Record<Seen, string> = { everyone: t('everyoneHead'), link: t('withTheLink'), members: t('membersHead') }

/** The reading page as each audience gets it. */
function Preview({ calendar }: { calendar: Calendar }) {
  const [width, setWidth] = useState<keyof typeof widths>('phone')
  const [seen, setSeen] = useState<Seen>(calendar.disclosure.everyone === 'nothing' ? 'members' : 'everyone')
  const detail = calendar.disclosure[seen]
  return (
    <section className="preview">
      <div className="page-head">
        <h2>{t('asReadersGetIt')}</h2>
        <div className="joined" role="group" aria-label={t('seeAs')}>
          {(Object.keys(seenNames) as Seen[]).map((one) => (
            <button key={one} type="button" aria-pressed={seen === one} onClick={() => setSeen(one)}>
              {seenNames[one]}
            </button>
          ))}
        </div>
      </div>
      <div className="page-head">
        <span className="soft">
          {seenNames[seen]}: {detailSaid[detail]}
        </span>
        <span className="stretch" />
        <div className="joined" role="group" aria-label={t('width')}>
          {(Object.keys(widths) as (keyof typeof widths)[]).map((one) => (
            <button key={one} type="button" aria-pressed={width === one} onClick={() => setWidth(one)}>
              {widthNames[one]} {widths[one]}
            </button>
          ))}
        </div>
      </div>
      {detail === 'nothing' ? (
        <p className="empty">{t('whomNothing', { whom: seenNames[seen] })}</p>
      ) : (
        <div className="preview-scroll" tabIndex={0} role="region" aria-label={t('preview')}>
          <iframe
            key={`${seen} ${calendar.version}`}
            src={apiAddress(`/calendars/${calendar.id}/seen-as/${seen}`)}
            title={t('nameAsReadersGetIt', { name: calendar.name })}
            width={widths[width]}
            height="640"
          />
        </div>
      )}
    </section>
  )
}
