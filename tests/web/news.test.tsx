// @vitest-environment happy-dom
import { screen, waitFor } from '@testing-library/react'
import { afterEach, expect, test, vi } from 'vitest'
import { useLists } from '../../src/web/desk/lists/queries'
import type { News } from '../../src/web/desk/news.worker'
import { rememberOwn } from '../../src/web/desk/own'
import { useNews } from '../../src/web/desk/useNews'
import { answer, sent, show } from './deskWorld'

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

function Screen() {
  useNews(true)
  return <p>{useLists().data ? 'there' : 'asked'}</p>
}

/** Listens as a tab does; what is given back says something to it, as the worker of all tabs would. */
async function listening() {
  const port = { postMessage: vi.fn(), onmessage: null as unknown as (message: { data: News }) => void }
  vi.stubGlobal(
    'SharedWorker',
    class {
      port = port
    },
  )
  const asked = answer({})
  show('/plan', <Screen />)
  await screen.findByText('there')
  vi.useFakeTimers({ shouldAdvanceTime: true })
  const say = (news: News) => port.onmessage({ data: news })
  const hear = (news: News) => {
    say(news)
    vi.advanceTimersByTime(1_000)
  }
  return { say, hear, lists: () => sent(asked, 'GET /lists').length }
}

test('what this tab changed itself is not asked for a second time, what others changed is', async () => {
  const { hear, lists } = await listening()
  rememberOwn('mine')
  hear('open')
  hear(['mine'])
  expect(lists()).toBe(1)
  hear(['theirs'])
  await waitFor(() => expect(lists()).toBe(2))
  hear(['mine', 'theirs'])
  await waitFor(() => expect(lists()).toBe(3))
  hear([])
  await waitFor(() => expect(lists()).toBe(4))
})

test('news that come before the answer of one’s own change wait for it', async () => {
  const { say, lists } = await listening()
  say(['early'])
  vi.advanceTimersByTime(200)
  rememberOwn('early')
  vi.advanceTimersByTime(1_000)
  expect(lists()).toBe(1)
})
