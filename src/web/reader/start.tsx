import { createRoot } from 'react-dom/client'
import { readPageData } from './edition'
import { cameIn } from './look'
import { Reader } from './Reader'
import { reportHeight } from './reportHeight'

const spot = document.getElementById('reader')
if (spot) {
  const data = readPageData()
  if (data.months[0]) cameIn(data.months[0].edition.look)
  createRoot(spot).render(<Reader data={data} />)
  reportHeight()
}
