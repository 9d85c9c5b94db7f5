import type messages from '../../../words/en/year.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/year.json', { import: 'default' }))
