import '../shared/fonts'
import './front.scss'

/* The front page of an organisation needs no script: this is its look. */
