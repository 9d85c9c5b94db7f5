import { Suspense, useCallback, useEffect, useMemo, useRef, useState, type MouseEvent } from 'react'
import { addDays, monthOf, weekOf } from '../shared/days'
import { Plate } from '../shared/Plate'
import { ActLink } from './ActLink'
import { nothingOpened, readOpened } from './address'
import { Cards } from './Cards'
import { Changes } from './Changes'
import { Chooser } from './Chooser'
import { entriesOf, type PageData } from './edition'
import { EntryList } from './EntryList'
import { keptAt } from './kept'
import { lazily } from './lazily'
import { wear } from './look'
import { MonthGrid } from './MonthGrid'
import { NeedsScript } from './NeedsScript'
import { PageContext, type Page } from './page'
import { PlainText } from './PlainText'
import { Said } from './Said'
import { SearchBox } from './SearchBox'
import { share } from './share'
import type { SheetKind } from './Sheet'
import { Speech } from './speech'
import { Tools } from './Tools'
import { useAlive } from './useAlive'
import { useParts } from './useParts'
import { narrowed, useReading } from './useReading'
import { useToday } from './useToday'
import { WordChips } from './WordChips'
import { WeekGrid, weekFrom } from './WeekGrid'

const Sheet = lazily(() => import('./Sheet').then((part) => part.Sheet))
const Subscribe = lazily(() => import('./Subscribe').then((part) => part.Subscribe))

type Panel = 'subscribe' | 'changes'

/** The reading page, and the embed: the same thing, with less around it. */
export function Reader({ data }: { data: PageData }) {
  const first = data.months[0]
  if (!first) throw new Error('The page holds no month.')
  // What is the reader's own comes once the page is alive: until then it is as the server painted it.
  const isAlive = useAlive()
  const { parts, freshness, version, require } = useParts(data, isAlive)
  const newest = [...parts.values()].pop()?.edition ?? first.edition
  const edition = parts.get(first.month)?.edition ?? newest
  const { languages } = data.painted
  const speech = useMemo(() => new Speech(edition, isAlive ? navigator.languages : languages), [edition, isAlive, languages])
  useEffect(() => {
    if (isAlive) wear(edition, speech)
  }, [edition, speech, isAlive])
  const today = useToday(edition.zone, data.painted.today)
  const reading = useReading(data, edition, parts, today, isAlive)
  const [open, setOpen] = useState<string | null>(null)
  // What the front page led to: something looked for, the panel of subscriptions, a sheet to print.
  const asked = useMemo(() => (isAlive ? readOpened() : nothingOpened), [isAlive])
  const { panel, toggle, close } = usePanel(asked.panel)
  const [chosenSheet, setSheet] = useState<SheetKind | null>()
  const sheet = chosenSheet === undefined ? asked.sheet : chosenSheet
  const [said, setSaid] = useState('')
  const { wanted, view, span, entries, linkTo } = reading
  useEffect(() => require(wanted), [require, wanted])
  useEffect(() => {
    if (asked.find || asked.sheet) require(['all'])
  }, [asked, require])

  const page: Page = useMemo(
    () => ({
      edition,
      addresses: data.addresses,
      speech,
      today,
      readersZone: isAlive ? Intl.DateTimeFormat().resolvedOptions().timeZone : null,
      isAlive,
      linkTo,
      open,
      onOpen: setOpen,
    }),
    [edition, data.addresses, speech, today, open, linkTo, isAlive],
  )
  const { words } = speech
  const kept = isAlive && keptAt()
  const needAll = useCallback(() => require(['all']), [require])
  const everything = parts.has('all') ? narrowed(entriesOf(parts, ['all']), reading.only, reading.about) : null
  const whole = parts.get('all')
  const endSheet = useCallback(() => setSheet(null), [])
  const isLoading = freshness === 'current' && wanted.some((name) => !parts.has(name))
  const empty = edition.look.emptyText || words.nothing

  if (freshness === 'closed')
    return (
      <main className="edition" aria-label={edition.name}>
        <p className="notice">{words.closed}</p>
      </main>
    )

  return (
    <PageContext value={page}>
      <main className={`edition view-${view}${sheet ? ' has-sheet' : ''}`} aria-label={edition.name}>
        <header className="edition-head">
          <div className="edition-name">
            {edition.sources.length === 1 && edition.sources[0] && (
              <Plate code={edition.sources[0].plate} colour={edition.sources[0].colour} />
            )}
            <h1 dir="auto">{edition.name}</h1>
            <span className="organisation">
              {edition.isOnFrontPage && (
                <a className="only-page" href={data.addresses.base.split('/').slice(0, 3).join('/')}>
                  {edition.organisation}
                </a>
              )}
              <span className={edition.isOnFrontPage ? 'only-embedded' : undefined}>{edition.organisation}</span>
            </span>
          </div>
          {edition.description && <PlainText className="edition-about" text={edition.description} />}
          <Tools reading={reading} onOpen={setOpen}>
            {data.addresses.feed && (
              <ActLink
                className="plain"
                href={data.addresses.feed}
                expanded={panel === 'subscribe'}
                onPress={toggle('subscribe')}
              >
                {words.subscribe}
              </ActLink>
            )}
          </Tools>
          {edition.look.legend && edition.sources.length > 1 && <Chooser only={reading.only} onChoose={reading.choose} />}
          {edition.look.legend && <WordChips words={reading.words} about={reading.about} onNarrow={reading.narrow} />}
        </header>
        {panel === 'subscribe' && (
          <Suspense fallback={null}>
            <Subscribe only={reading.only} about={reading.about} onClose={close} />
          </Suspense>
        )}
        {freshness === 'away' && (
          <p className="notice" role="status">
            {kept ? speech.fill('keptAt', { when: speech.moment(kept) }) : edition.look.failedText || words.away}
          </p>
        )}
        {isLoading && (
          <p className="notice is-passing" role="status">
            <Said>{speech.fill('fetching', { month: speech.format(reading.day, { month: 'long', year: 'numeric' }) })}</Said>
          </p>
        )}
        {(view === 'month' || view === 'smallMonth') && (
          <MonthGrid
            key={reading.day}
            month={monthOf(reading.day)}
            day={reading.day}
            entries={entries}
            isSmall={view === 'smallMonth'}
          />
        )}
        {view === 'week' && <WeekGrid days={weekFrom(weekOf(reading.day, edition.firstDayOfWeek))} entries={entries} />}
        {view === 'day' && <WeekGrid days={[reading.day]} entries={entries} />}
        {view === 'list' && <EntryList name="list" entries={entries} from={span.from} to={span.to} empty={empty} />}
        {view === 'cards' && <Cards entries={entries} from={span.from} to={span.to} empty={empty} />}
        {panel === 'changes' && <Changes version={version} onClose={close} />}
        <footer className="edition-foot">
          {edition.look.zoneLabel && <span>{speech.zone(edition)}</span>}
          <span className="stretch" />
          <NeedsScript>
            <SearchBox key={asked.find} find={asked.find} entries={everything} today={today} onWanted={needAll} />
          </NeedsScript>
          {data.addresses.atom ? (
            <ActLink className="as-link" href={data.addresses.atom} expanded={panel === 'changes'} onPress={toggle('changes')}>
              {words.changes}
            </ActLink>
          ) : (
            <NeedsScript>
              <button type="button" className="as-link" aria-expanded={panel === 'changes'} onClick={toggle('changes')}>
                {words.changes}
              </button>
            </NeedsScript>
          )}
          {data.addresses.page && (
            <>
              <a href={data.addresses.page} target="_blank" rel="noopener" className="only-embedded">
                {words.wholePage}
              </a>
              <NeedsScript>
                <button
                  type="button"
                  className="as-link"
                  onClick={() =>
                    void share(edition.name, data.addresses.page + location.search).then((how) =>
                      setSaid(how === 'copied' ? words.copied : how === 'failed' ? data.addresses.page : ''),
                    )
                  }
                >
                  {isAlive && 'share' in navigator ? words.share : words.copyLink}
                </button>
              </NeedsScript>
              <span role="status">{said}</span>
            </>
          )}
          <NeedsScript>
            {sheets(speech).map(([kind, label]) => (
              <button key={kind} type="button" className="as-link" onClick={() => (needAll(), setSheet(kind))}>
                {label}
              </button>
            ))}
          </NeedsScript>
        </footer>
      </main>
      {sheet && whole && everything && (
        <Suspense fallback={null}>
          <Sheet
            kind={sheet}
            entries={everything}
            from={edition.from && edition.from > today ? edition.from : edition.isWhole ? whole.from : today}
            to={edition.to ?? addDays(today, sheet === 'months' ? 150 : 366)}
            year={whole.years.find((year) => year.from <= reading.day && reading.day < year.to) ?? whole.years[0]}
            onDone={endSheet}
          />
        </Suspense>
      )}
    </PageContext>
  )
}

/** What can be printed, and what it is called. */
const sheets = (speech: Speech): [SheetKind, string][] => [
  ['months', speech.words.printMonths],
  ['list', speech.words.printList],
  ['a4', speech.fill('printYear', { paper: 'A4' })],
  ['a3', speech.fill('printYear', { paper: 'A3' })],
]

/** One of the panels, which stands beside the button that opens it; closed, it gives the focus back. */
function usePanel(first: Panel | null) {
  const [chosen, setPanel] = useState<Panel | null>()
  const panel = chosen === undefined ? first : chosen
  const opener = useRef<HTMLElement | null>(null)
  return {
    panel,
    toggle: (which: Panel) => (event: MouseEvent<HTMLElement>) => {
      opener.current = event.currentTarget
      setPanel(panel === which ? null : which)
    },
    close: () => {
      setPanel(null)
      opener.current?.focus()
    },
  }
}
