import { useState } from 'react'
import { listed } from '../catalogue'
import type { RenderedAgain } from '../types'
import { usePost } from '../usePost'
import { useWrite } from '../useWrite'
import { t } from './words'

/** Makes what readers have once more, and says what differed: nothing, normally. */
export function RenderAgain({ id }: { id: string }) {
  const { problem, isBusy, post } = usePost()
  const write = useWrite()
  const [made, setMade] = useState<RenderedAgain>()
  const again = () =>
    post(async () => {
      setMade(undefined)
      setMade(await write('POST', `/editions/${id}/render`))
    })
  return (
    <div className="render-again">
      <button type="button" className="btn btn-outline-ink" disabled={isBusy} onClick={() => void again()}>
        {t('renderAgain')}
      </button>{' '}
      <span className="soft">{t('renderAgainAbout')}</span>
      <div role="status">
        {made && sayDifferences(made).map((said) => <p key={said}>{said}</p>)}
        {problem && <p className="refusal">{problem.message}</p>}
      </div>
    </div>
  )
}

function sayDifferences({ checked, differed }: RenderedAgain): string[] {
  if (differed.length === 0) return [checked === 0 ? t('nothingOut') : t('nothingDiffered', { count: checked })]
  return differed.map(({ month, titles }) =>
    month === null
      ? t('differedFeed', { titles: listed(titles.map((title) => (title === 'VCALENDAR' ? t('itself') : title))) })
      : t('differedMonth', { month }),
  )
}
