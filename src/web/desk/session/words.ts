import type messages from '../../../words/en/session.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/session.json', { import: 'default' }))
