import { createRoot } from 'react-dom/client'
import '../shared/fonts'
import { readPageData } from './edition'
import { Reader } from './Reader'
import './reader.scss'
import { reportHeight } from './reportHeight'

const spot = document.getElementById('reader')
if (spot) {
  createRoot(spot).render(<Reader data={readPageData()} />)
  reportHeight()
}
