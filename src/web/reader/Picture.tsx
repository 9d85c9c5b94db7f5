import type { Picture as EntryPicture } from './edition'
import { usePage } from './page'

interface PictureProps {
  picture: EntryPicture
  className?: string
  /** How wide it is shown, as browsers want to know it before anything is laid out. */
  sizes: string
  /** Beside its entry's words it need not be read out. */
  isMute?: boolean
}

/** The widths that the server makes. */
const widths = [480, 960, 1600]

/** The picture of an entry, no larger than it is shown, cut where somebody said that it can be. */
export function Picture({ picture, className = '', sizes, isMute = false }: PictureProps) {
  const { addresses } = usePage()
  const at = `${addresses.base}/${picture.address}`
  const set = (form: string) => widths.map((width) => `${at}?width=${width}${form} ${width}w`).join(', ')
  return (
    <picture>
      <source type="image/webp" srcSet={set('')} sizes={sizes} />
      <img
        className={`${className} focus-${picture.focus.toLowerCase()}`.trim()}
        src={`${at}?width=960&form=jpeg`}
        srcSet={set('&form=jpeg')}
        sizes={sizes}
        alt={isMute ? '' : picture.alternative}
        loading="lazy"
      />
    </picture>
  )
}
