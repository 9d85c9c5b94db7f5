import '../shared/fonts'
import './front.scss'
import { keepPages } from './kept'

/* The front page of an organisation needs no script: this is its look, and that it is kept for when there is no network. */

keepPages()
