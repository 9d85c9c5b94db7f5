import type messages from '../../../words/en/wall.json'
import { catalogue } from '../catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../../words/*/wall.json', { import: 'default' }))
