import type messages from '../../words/en/frame.json'
import { catalogue } from './catalogue'

export const t = await catalogue<typeof messages>(import.meta.glob('../../words/*/frame.json', { import: 'default' }))
