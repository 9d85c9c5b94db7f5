import { useState } from 'react'
import type { Problem } from '../Problem'
import { apiAddress } from '../api'
import type { Edition, EditionDelivery } from '../types'
import { Copyable } from '../calendars/Copyable'
import { Refusal } from '../Refusal'
import { SecretActs, type SecretWords } from '../SecretActs'
import type { Draft } from './draft'
import { TargetList } from '../elsewhere/TargetList'
import { FeedForm } from './FeedForm'
import { Step, Tick } from './Step'
import { OtherForms } from './OtherForms'
import { TakeAlong } from './TakeAlong'
import { t } from './words'

type Way = 'fits' | 'plain' | 'link' | 'feed' | 'code'

const wayWords: Record<Way, string> = {
  fits: t('fitsItsHeight'),
  plain: t('plainFrame'),
  link: t('link'),
  feed: t('feeds'),
  code: t('code'),
}

interface DeliveryStepProps {
  draft: Draft
  saved: Edition | undefined
  problem: Problem | null
  onChange: (part: Partial<Draft>) => void
  onLink: () => void
}

/** How it gets to its readers. Addresses stay what they are: pages that hold it show it changed. */
export function DeliveryStep({ draft, saved, problem, onChange, onLink }: DeliveryStepProps) {
  const [way, setWay] = useState<Way>('fits')
  return (
    <Step number={5} title={t('delivery')} about={t('whatToPasteAndWhere')}>
      {!saved && <p className="soft">{t('saveItAndItsAddress')}</p>}
      {saved && draft.audience === 'members' && !saved.isStandard && <p className="soft">{t('membersReadItUnderEditions')}</p>}
      {saved && saved.edition.audience !== draft.audience && !saved.isStandard && (
        <p className="remark">{t('itsAddressChangesWithWhom')}</p>
      )}
      {saved?.addresses && (
        <>
          {!saved.addresses.isReady && <p className="remark">{t('theCalendarIsNotOpen')}</p>}
          <div className="joined" role="group" aria-label={t('howToDeliverIt')}>
            {(Object.keys(wayWords) as Way[]).map((one) => (
              <button key={one} type="button" aria-pressed={way === one} onClick={() => setWay(one)}>
                {wayWords[one]}
              </button>
            ))}
          </div>
          <WayOf way={way} id={saved.id} addresses={saved.addresses} name={saved.name} />
          {draft.audience === 'link' && !saved.isStandard && (
            <SecretActs path={`/editions/${saved.id}/link`} isThere words={secret} onDone={onLink} />
          )}
        </>
      )}
      {saved && <TakeAlong id={saved.id} />}
      {saved && <TargetList editionId={saved.id} />}
      {draft.audience === 'everyone' && (
        <p>
          <Tick checked={draft.onFrontPage ?? true} onChange={(onFrontPage) => onChange({ onFrontPage })}>
            {t('onTheFrontPage')}
          </Tick>{' '}
          {saved?.addresses && (
            <a href={saved.addresses.page.replace(/\/[^/]+$/, '')} target="_blank" rel="noopener">
              {t('openTheFrontPage')}
            </a>
          )}
        </p>
      )}
      <FeedForm draft={draft} saved={saved} problem={problem} onChange={onChange} />
      <Sites draft={draft} problem={problem} onChange={onChange} />
    </Step>
  )
}

function WayOf({ way, id, addresses, name }: { way: Way; id: string; addresses: EditionDelivery; name: string }) {
  const [width, setWidth] = useState('100%')
  const [height, setHeight] = useState('640')
  switch (way) {
    case 'fits':
      return (
        <Copyable name={t('snippetThatFits')} button={t('copyTheSnippet')} text={addresses.snippetThatFits} lines={4}>
          {t('forABlockWithScripts')}
        </Copyable>
      )
    case 'plain':
      return (
        <>
          <p className="sentence">
            {t('width')}{' '}
            <input
              className="form-control inline-number"
              aria-label={t('width')}
              value={width}
              onChange={(event) => setWidth(event.target.value)}
            />{' '}
            {t('heightBeside')}{' '}
            <input
              className="form-control inline-number"
              aria-label={t('height')}
              value={height}
              onChange={(event) => setHeight(event.target.value)}
            />
          </p>
          {/^\d{2,4}(%|px)?$/.test(width) && /^\d{2,4}$/.test(height) ? (
            <Copyable
              name={t('plainFrame')}
              button={t('copyThePlainFrame')}
              text={frameOf(addresses.embed, name, width, height)}
              lines={3}
            >
              {t('forSitesThatStripScripts')}
            </Copyable>
          ) : (
            <p className="refusal">{t('writeTheWidthAsPixels')}</p>
          )}
        </>
      )
    case 'link':
      return (
        <>
          <Copyable name={t('pageAddress')} button={t('copyThePageAddress')} text={addresses.page}>
            {t('forMailsAndForLearning')}
          </Copyable>
          <Copyable name={t('link')} button={t('copyTheLink')} text={addresses.snippetLink} lines={2}>
            {t('forPagesThatAllowNeither')}
          </Copyable>
        </>
      )
    case 'feed':
      return (
        <>
          <Copyable name={t('feedAddress')} button={t('copyTheFeedLink')} text={addresses.feed}>
            {t('forCalendarProgramsEveryDate')}
          </Copyable>
          <Copyable name={t('linkThatOpens')} button={t('copyTheWebcalLink')} text={addresses.webcal}>
            {t('forAPageItOpens')}
          </Copyable>
          <Copyable name={t('whatChangedLately')} button={t('copyTheAtomLink')} text={addresses.atom}>
            {t('forNewsReadersWhatWas')}
          </Copyable>
          <OtherForms feed={addresses.feed} />
        </>
      )
    default:
      return (
        <div className="codes">
          {(['page', 'feed'] as const).map((of) => (
            <figure key={of}>
              <img
                src={apiAddress(`/editions/${id}/code.svg?of=${of}`)}
                alt={of === 'page' ? t('codeOfThePage') : t('codeThatSubscribes')}
                width="140"
                height="140"
              />
              <figcaption>
                {of === 'page' ? t('opensThePage') : t('subscribes')}:{' '}
                <a href={apiAddress(`/editions/${id}/code.svg?of=${of}`)} download={`${of}.svg`}>
                  SVG
                </a>{' '}
                <a href={apiAddress(`/editions/${id}/code.png?of=${of}`)} download={`${of}.png`}>
                  PNG
                </a>
              </figcaption>
            </figure>
          ))}
        </div>
      )
  }
}

export function frameOf(embed: string, name: string, width: string, height: string): string {
  const title = name.replaceAll('&', '&amp;').replaceAll('"', '&quot;').replaceAll('<', '&lt;')
  return `<iframe src="${embed}" title="${title}" width="${width.replace('px', '')}" height="${height}" style="border:0" allow="clipboard-write"></iframe>`
}

const secret: SecretWords = {
  make: t('makeASecretAddress'),
  made: t('thereIsASecretAddress'),
  replace: t('replaceTheSecretAddress'),
  ifReplaced: t('theOldAddressStopsWorking'),
  doReplace: t('replaceTheAddress'),
  replaced: t('theSecretAddressWasReplaced'),
}

/** Whose pages may hold it in a frame. */
function Sites({
  draft,
  problem,
  onChange,
}: {
  draft: Draft
  problem: Problem | null
  onChange: (part: Partial<Draft>) => void
}) {
  const [text, setText] = useState((draft.sites ?? []).join('\n'))
  const isAny = draft.sites === null || draft.sites === undefined
  const keep = () =>
    onChange({
      sites: text
        .split(/[\n,]/)
        .map((site) => site.trim())
        .filter(Boolean),
    })
  return (
    <div className="sites">
      <Tick checked={isAny} onChange={(any) => (any ? onChange({ sites: null }) : keep())}>
        {t('anySiteMayHoldIt')}
      </Tick>
      {!isAny && (
        <label>
          {t('onlyTheseSitesOneOn')}
          <textarea
            className="form-control"
            rows={3}
            value={text}
            placeholder="https://www.families.example"
            onChange={(event) => setText(event.target.value)}
            onBlur={keep}
          />
        </label>
      )}
      <Refusal text={problem?.on('sites')} />
    </div>
  )
}
