import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { sayAgo } from '../Delivery'
import { NothingHere } from '../NothingHere'
import { useOrganisation } from '../session/queries'
import { useCopy } from '../useCopy'
import type { Deliveries, Reach } from '../types'
import { FetchedChart, FetchedTable } from './FetchedChart'
import { useDeliveries, type DeliverySpan } from './queries'
import { sayWhen } from './ReachSign'
import { RenderAgain } from './RenderAgain'
import { t } from './words'

const spans: [DeliverySpan, string][] = [
  ['fortnight', t('days14')],
  ['term', t('thisTerm')],
]

/** Who has which version of an edition: how many programs came, how often they ask, and what can be promised. */
export function DeliveriesPage() {
  const { id = '' } = useParams()
  const [span, setSpan] = useState<DeliverySpan>('fortnight')
  const deliveries = useDeliveries(id, span)
  const organisation = useOrganisation()
  if (deliveries.error && !deliveries.data) return <NothingHere detail={deliveries.error.message} />
  if (!deliveries.data) return <p className="page">{t('opening')}</p>
  const found = deliveries.data
  return (
    <main className="deliveries-page">
      <header className="screen-head">
        <p className="soft crumbs">
          <Link to="/editions">{t('editions')}</Link> › <Link to={`/editions/${found.id}`}>{found.name}</Link> › {t('deliveries')}
        </p>
        <div className="page-head">
          <h1>{found.name}</h1>
          <span className="soft">
            {t('whoHasWhich')}
            {found.reach.changedAt && ` · ${t('newestIsOf', { when: sayAgo(found.reach.changedAt) })}`}
          </span>
          <span className="stretch" />
          {found.termFrom && (
            <div className="joined" role="group" aria-label={t('span')}>
              {spans.map(([one, words]) => (
                <button key={one} type="button" aria-pressed={span === one} onClick={() => setSpan(one)}>
                  {words}
                </button>
              ))}
            </div>
          )}
        </div>
      </header>
      <div className="deliveries-halves">
        <section className="fetched">
          <Numbers found={found} />
          <h2>{t('byDay')}</h2>
          {found.days.some((day) => day.programs > 0) ? (
            <FetchedChart days={found.days} organisation={organisation} />
          ) : (
            <p className="empty">{t('nobodyYet')}</p>
          )}
          <FetchedTable days={found.days} organisation={organisation} />
        </section>
        <section className="deliveries-side">
          <Rhythms found={found} />
          <Sites found={found} />
          <Promised reach={found.reach} />
          <RenderAgain id={found.id} />
          <p className="soft counted">{t('counted')}</p>
        </section>
      </div>
    </main>
  )
}

/** Of which a tenth says something. */
const LOW = 3

/** The few that answer at a glance. */
function Numbers({ found: { reach, days, halfWithinMinutes, lastFetchAt, subscribers } }: { found: Deliveries }) {
  const organisation = useOrganisation()
  const when = reach.changedAt ? sayWhen(reach.changedAt, organisation) : null
  const numbers: [string, string][] = [
    when
      ? [String(reach.since), t('programsSince', { count: reach.since, when, usual: reach.usual })]
      : [String(reach.usual), t('programsUsual')],
    ...(halfWithinMinutes === null ? [] : ([[sayMinutes(halfWithinMinutes), t('halfWithin')]] as [string, string][])),
    [String(days.reduce((sum, day) => sum + day.views, 0)), t('views')],
    ...(subscribers === 0 ? [] : ([[String(subscribers), t('getMails', { count: subscribers })]] as [string, string][])),
    ...(lastFetchAt === null ? [] : ([[sayAgo(lastFetchAt), t('lastFetchAgo')]] as [string, string][])),
  ]
  return (
    <dl className="big-numbers">
      {numbers.map(([number, words]) => (
        <div key={words}>
          <dt>{words}</dt>
          <dd>{number}</dd>
        </div>
      ))}
    </dl>
  )
}

function sayMinutes(minutes: number): string {
  return minutes < 60 ? t('minutes', { count: minutes }) : t('hours', { count: Math.round(minutes / 60) })
}

function Rhythms({ found: { rhythms, kinds } }: { found: Deliveries }) {
  const { locale } = useOrganisation()
  const sayNumber = (value: number) => new Intl.NumberFormat(locale, { maximumFractionDigits: value < LOW ? 1 : 0 }).format(value)
  const percent = new Intl.NumberFormat(locale, { style: 'percent', maximumFractionDigits: 0 })
  if (rhythms.length === 0) return null
  return (
    <>
      <h2>{t('howOften')}</h2>
      <table className="plain-table rhythms">
        <thead>
          <tr>
            <th scope="col">{t('theyAsk')}</th>
            <th scope="col" className="is-number">
              {t('usualDay')}
            </th>
            <th scope="col">{t('haveNewest')}</th>
            <th scope="col">{t('mostly')}</th>
          </tr>
        </thead>
        <tbody>
          {rhythms.map((one) => (
            <tr key={one.rhythm}>
              <th scope="row">{t(`every_${one.rhythm}`)}</th>
              <td className="is-number">{sayNumber(one.usual)}</td>
              <td>
                {one.usual > 0 ? (
                  <span className="share">
                    <svg className="share-bar" viewBox="0 0 100 10" preserveAspectRatio="none" aria-hidden="true">
                      <rect width={one.share * 100} height="10" />
                    </svg>
                    {percent.format(one.share)}
                  </span>
                ) : (
                  one.since
                )}
              </td>
              <td className="soft">{t(`${one.mostly}Kind`)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {kinds.length > 0 && (
        <p className="soft">
          {t('kindsUsual', { kinds: kinds.map((one) => `${sayNumber(one.usual)} ${t(`${one.kind}Kind`)}`).join(', ') })}
        </p>
      )}
    </>
  )
}

function Sites({ found: { sites } }: { found: Deliveries }) {
  return (
    <>
      <h2>{t('sites')}</h2>
      {sites.length === 0 ? (
        <p className="soft">{t('noSites')}</p>
      ) : (
        <table className="plain-table sites">
          <tbody>
            {sites.map(({ site, views }) => (
              <tr key={site}>
                <th scope="row" className={site === '' ? 'soft' : undefined}>
                  {site || t('siteUntold')}
                </th>
                <td className="is-number">{t('viewsOf', { count: views })}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </>
  )
}

function Promised({ reach: { most, last } }: { reach: Reach }) {
  const copy = useCopy()
  if (!most || !last) return null
  const said =
    most === last
      ? t('promiseOne', { last: t(`within_${last}`) })
      : t('promise', { most: t(`within_${most}`), last: t(`within_${last}`) })
  return (
    <>
      <h2>{t('whatToTell')}</h2>
      <blockquote className="promise">
        {said}{' '}
        <button type="button" className="as-link" onClick={() => copy(t('whatToTell'), said)}>
          {t('copy')}
        </button>
      </blockquote>
    </>
  )
}
