import '../shared/fonts'
import './reader.scss'

/*
 * The first view stands in the page already, with its colours. It is painted before the script that makes it work is
 * even asked for: on a slow phone that takes a while.
 */
// A learning platform may frame the page itself: it then looks like an embed.
if (window.parent !== window) document.documentElement.className = 'is-embedded'
requestAnimationFrame(() => setTimeout(() => void import('./start')))
