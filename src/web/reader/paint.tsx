import { renderToString } from 'react-dom/server.browser'
import type { PageData } from './edition'
import { Reader } from './Reader'

/*
 * The reader as the server runs it (Valtro.Server/Public/Painter.cs): from what stands in the page's first response to the
 * HTML of its first view. Nothing of a browser is there.
 */
Object.assign(globalThis, {
  paint: (json: string) => renderToString(<Reader data={JSON.parse(json) as PageData} />),
})
