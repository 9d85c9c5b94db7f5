import { createRoot, hydrateRoot } from 'react-dom/client'
import { readPageData } from './edition'
import { followScheme } from './followScheme'
import { keepPages } from './kept'
import { cameIn } from './look'
import { Reader } from './Reader'
import { reportHeight } from './reportHeight'

const spot = document.getElementById('reader')
if (spot) {
  const data = readPageData()
  if (data.months[0]) cameIn(data.months[0].edition.look)
  const reader = <Reader data={data} />
  // What the server painted is taken over; where it could not paint, the script does.
  if (spot.dataset.painted === undefined) createRoot(spot).render(reader)
  else hydrateRoot(spot, reader)
  reportHeight()
  followScheme()
  keepPages()
}
