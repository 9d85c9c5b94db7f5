import '../shared/fonts'
import { share } from './share'
import './reader.scss'

/* The own page of an entry is complete without this: it adds sharing, and the reader's own time. */

const place = document.getElementById('share')
if (place) {
  const button = document.createElement('button')
  button.type = 'button'
  button.className = 'plain'
  button.textContent = ('share' in navigator ? place.dataset.share : place.dataset.copy) ?? ''
  const said = document.createElement('span')
  said.setAttribute('role', 'status')
  button.addEventListener('click', () => {
    void share(place.dataset.title ?? document.title, location.href).then((how) => {
      said.textContent = how === 'copied' ? ` ${place.dataset.copied ?? ''}` : how === 'failed' ? ` ${location.href}` : ''
    })
  })
  place.append(button, said)
}

const time = document.querySelector<HTMLTimeElement>('time[data-end]')
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone
if (time && time.dateTime.includes('T')) {
  const start = new Date(time.dateTime)
  const clock = (timeZone: string | undefined) =>
    new Intl.DateTimeFormat(document.documentElement.lang, {
      weekday: 'short',
      hour: '2-digit',
      minute: '2-digit',
      hour12: time.dataset.clock === 'twelve',
      timeZone,
    }).format(start)
  if (clock(zone) !== clock(time.dataset.zone)) {
    const line = document.createElement('p')
    line.className = 'soft'
    line.textContent = (time.dataset.yourTime ?? '{{when}}').replace('{{when}}', clock(zone))
    time.parentElement?.after(line)
  }
}
