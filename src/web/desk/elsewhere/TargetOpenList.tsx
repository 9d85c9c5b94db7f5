import type { Target, TargetOpen } from '../types'
import { useAttempt, useWrite } from '../useWrite'
import { t } from './words'

/** What somebody changed there, beside what it is here: nothing is written over before somebody says so. */
export function TargetOpenList({ target }: { target: Target }) {
  if (target.open.length === 0) return <p className="soft">{t('nothingWasChangedThere')}</p>
  return (
    <ul className="elsewhere-open">
      {target.open.map((one) => (
        <Open key={one.name} target={target} open={one} />
      ))}
    </ul>
  )
}

function Open({ target, open }: { target: Target; open: TargetOpen }) {
  const write = useWrite()
  const attempt = useAttempt()
  const answer = (said: 'ours' | 'theirs') =>
    void attempt(() => write('PUT', `/targets/${target.id}/answers`, { name: open.name, answer: said }))
  return (
    <li>
      <h3>{open.title}</h3>
      {open.problem !== '' && <p className="remark">{open.problem}</p>}
      {open.question && open.answer !== 'theirs' && (
        <>
          <p>{t(`question_${open.question}`)}</p>
          <dl className="elsewhere-sides">
            <Side name={t('here')} words={open.ours} other={open.theirs} empty={t('neverWritten')} />
            <Side name={t('there')} words={open.theirs} other={open.ours} empty={t('isGoneThere')} />
          </dl>
          <button
            type="button"
            className="btn btn-outline-ink"
            aria-label={t('asHereName', { title: open.title })}
            onClick={() => answer('ours')}
          >
            {t('asHere')}
          </button>{' '}
          <button
            type="button"
            className="btn btn-outline-ink"
            aria-label={t('asThereName', { title: open.title })}
            onClick={() => answer('theirs')}
          >
            {t('asThere')}
          </button>
        </>
      )}
      {open.answer === 'theirs' && (
        <p className="soft">
          {t('staysAsItIsThere')}{' '}
          <button type="button" className="as-link" onClick={() => answer('ours')}>
            {t('asHereAfterAll')}
          </button>
        </p>
      )}
    </li>
  )
}

interface SideProps {
  name: string
  words: string[]
  other: string[]
  empty: string
}

function Side({ name, words, other, empty }: SideProps) {
  return (
    <div>
      <dt>{name}</dt>
      <dd>
        {words.length === 0 && <span className="soft">{empty}</span>}
        {words.map((line, place) => (
          <span key={place} className={line === other[place] ? undefined : 'is-another'}>
            {line}
          </span>
        ))}
      </dd>
    </div>
  )
}
