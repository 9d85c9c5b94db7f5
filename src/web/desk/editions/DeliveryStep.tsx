import { useState } from 'react'
import { apiAddress, type Edition, type EditionDelivery, type Problem } from '../api'
import { Copyable } from '../calendars/Copyable'
import { Refusal } from '../Refusal'
import { SecretActs, type SecretWords } from '../SecretActs'
import type { Draft } from './draft'
import { FeedForm } from './FeedForm'
import { Step, Tick } from './Step'

type Way = 'fits' | 'plain' | 'link' | 'feed' | 'code'

const wayWords: Record<Way, string> = {
  fits: 'Fits its height',
  plain: 'Plain frame',
  link: 'Link',
  feed: 'Feeds',
  code: 'QR code',
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
    <Step number={5} title="Delivery" about="what to paste, and where">
      {!saved && <p className="soft">Save it, and its address, snippets and codes stand here.</p>}
      {saved && draft.audience === 'members' && !saved.isStandard && (
        <p className="soft">
          Members read it under Editions when they are signed in, and each can make an address of their own there for their
          program.
        </p>
      )}
      {saved && saved.edition.audience !== draft.audience && !saved.isStandard && (
        <p className="remark">Its address changes with whom it is for, once you have saved it.</p>
      )}
      {saved?.addresses && (
        <>
          {!saved.addresses.isReady && (
            <p className="remark">
              The calendar is not open to everyone yet: whoever follows these links is told that there is nothing here.
            </p>
          )}
          <div className="joined" role="group" aria-label="How to deliver it">
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
      <FeedForm draft={draft} saved={saved} onChange={onChange} />
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
        <Copyable name="Snippet that fits its height" button="Copy the snippet" text={addresses.snippetThatFits} lines={4}>
          For an HTML block. The site has to let scripts through; the frame then grows and shrinks with what is in it. A site that
          allows scripts of its own only may keep a copy of embed.js and name that instead.
        </Copyable>
      )
    case 'plain':
      return (
        <>
          <p className="sentence">
            Width{' '}
            <input
              className="form-control inline-number"
              aria-label="Width"
              value={width}
              onChange={(event) => setWidth(event.target.value)}
            />{' '}
            height{' '}
            <input
              className="form-control inline-number"
              aria-label="Height"
              value={height}
              onChange={(event) => setHeight(event.target.value)}
            />
          </p>
          {/^\d{2,4}(%|px)?$/.test(width) && /^\d{2,4}$/.test(height) ? (
            <Copyable
              name="Plain frame"
              button="Copy the plain frame"
              text={frameOf(addresses.embed, name, width, height)}
              lines={3}
            >
              For sites that strip scripts but allow frames. Its height stays what you write.
            </Copyable>
          ) : (
            <p className="refusal">
              Write the width as pixels or a percentage, like 300 or 100%, and the height in pixels, like 640.
            </p>
          )}
        </>
      )
    case 'link':
      return (
        <>
          <Copyable name="Page address" button="Copy the page address" text={addresses.page}>
            For mails, and for learning platforms that take only a link. Sites that know oEmbed make a frame of it by themselves.
          </Copyable>
          <Copyable name="Link" button="Copy the link" text={addresses.snippetLink} lines={2}>
            For pages that allow neither scripts nor frames.
          </Copyable>
        </>
      )
    case 'feed':
      return (
        <>
          <Copyable name="Feed address" button="Copy the feed link" text={addresses.feed}>
            For calendar programs: every date, kept up to date.
          </Copyable>
          <Copyable name="Link that opens the program" button="Copy the webcal link" text={addresses.webcal}>
            For a page: it opens the reader’s own program.
          </Copyable>
          <Copyable name="What changed lately" button="Copy the Atom link" text={addresses.atom}>
            For news readers: what was moved or cancelled in the last 14 days.
          </Copyable>
        </>
      )
    default:
      return (
        <div className="codes">
          {(['page', 'feed'] as const).map((of) => (
            <figure key={of}>
              <img
                src={apiAddress(`/editions/${id}/code.svg?of=${of}`)}
                alt={of === 'page' ? 'QR code of the page' : 'QR code that subscribes'}
                width="140"
                height="140"
              />
              <figcaption>
                {of === 'page' ? 'Opens the page' : 'Subscribes'}:{' '}
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
  name: 'address',
  make: 'Make a secret address',
  made: 'There is a secret address now.',
  replace: 'Replace the secret address …',
  ifReplaced: 'The old address stops working at once. Pages and programs that have it are told that it was replaced.',
  replaced: 'The secret address was replaced. The old one says so from now on.',
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
        any site may hold it in a frame
      </Tick>
      {!isAny && (
        <label>
          Only these sites, one on each line
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
