import type { Lists } from '../types'
import { apiAddress } from '../api'
import { useColours } from '../calendars/queries'
import { bringFile } from '../event/bringFile'
import { Refusal } from '../Refusal'
import { usePost } from '../usePost'
import { useLists } from './queries'
import { NameList } from './NameList'
import { hueName } from '../hues'
import { t } from './words'

/** The organisation's categories, and the places it knows. */
export function ListsPage() {
  const lists = useLists()
  if (lists.error)
    return (
      <main className="page">
        <p className="notice" role="alert">
          {lists.error.message}
        </p>
      </main>
    )
  if (!lists.data) return <p className="page">{t('opening')}</p>
  return (
    <main className="page lists">
      <h1>{t('categoriesAndPlaces')}</h1>
      <div className="two-columns">
        <Categories lists={lists.data} />
        <Places lists={lists.data} />
      </div>
    </main>
  )
}

type Place = Lists['places'][number]

function sayPoint(place: Place): string {
  return place.latitude === null ? '' : `${place.latitude}, ${place.longitude}`
}

/** What is known of a place besides its name, in a line. */
function aboutPlace(place: Place, all: Place[]): string {
  const whole = all.find((one) => one.id === place.partOf)
  return [
    whole && t('partOfName', { name: whole.name }),
    place.address,
    place.capacity && t('holds', { count: place.capacity }),
    place.accessNote,
    sayPoint(place),
  ]
    .filter(Boolean)
    .join(' · ')
}

/** What is no number is sent as one that is refused with its reason. */
const numberOrNull = (typed: string) => (typed.trim() === '' ? null : Number(typed) || 0)

interface PlaceValues {
  coordinates: string
  address: string
  accessNote: string
  capacity: string
  partOf: string
  mapLink: string
  pictureId: string
}

interface PlaceFieldsProps {
  values: PlaceValues
  change: (part: Partial<PlaceValues>) => void
  others: Place[]
}

function PlaceFields({ values, change, others }: PlaceFieldsProps) {
  const text = (name: keyof PlaceValues, label: string, placeholder: string) => (
    <label>
      <span className="soft">{label}</span>
      <input
        className="form-control"
        placeholder={placeholder}
        value={values[name]}
        onChange={(event) => change({ [name]: event.target.value })}
      />
    </label>
  )
  return (
    <span className="place-fields">
      {text('address', t('addressOfThePlace'), t('streetAndTown'))}
      {text('accessNote', t('accessNote'), t('stepsLiftDoor'))}
      {text('capacity', t('capacity'), '')}
      {text('coordinates', t('degreesNorthAndEastIf'), '43.94, -60.03')}
      {text('mapLink', t('mapOfOnesOwn'), 'https://')}
      <label>
        <span className="soft">{t('partOf')}</span>
        <select className="form-select" value={values.partOf} onChange={(event) => change({ partOf: event.target.value })}>
          <option value="">{t('ofItself')}</option>
          {others.map((one) => (
            <option key={one.id} value={one.id}>
              {one.name}
            </option>
          ))}
        </select>
      </label>
      <PictureOfPlace id={values.pictureId} onChange={(pictureId) => change({ pictureId })} />
    </span>
  )
}

/** What the place looks like, for readers who are told that something is there. */
function PictureOfPlace({ id, onChange }: { id: string; onChange: (id: string) => void }) {
  const { problem, isBusy, post } = usePost()
  const bring = (file: File | undefined) => file && post(async () => onChange((await bringFile(file)).id))
  return (
    <div>
      <label>
        <span className="soft">{t('pictureOfThePlace')}</span>
        <input
          type="file"
          className="form-control"
          accept="image/png,image/jpeg,image/webp,image/gif"
          disabled={isBusy}
          onChange={(event) => void bring(event.target.files?.[0])}
        />
      </label>
      {id !== '' && (
        <span className="place-picture">
          <img src={apiAddress(`/files/${id}`)} alt="" />
          <button type="button" className="btn btn-quiet" onClick={() => onChange('')}>
            {t('takeThePictureOff')}
          </button>
        </span>
      )}
      <Refusal text={problem?.on('files') ?? problem?.message} />
    </div>
  )
}

/** Places may say where they are: an entry's own page then leads to a map. */
function Places({ lists }: { lists: Lists }) {
  return (
    <NameList
      words={{ name: t('nameOfThePlace'), new: t('newPlace'), add: t('addPlace') }}
      title={t('places')}
      about={t('roomsAndFieldsThatCan')}
      path="/lists/places"
      entries={lists.places}
      retired={lists.retiredPlaces}
      mayEdit={lists.mayEdit}
      example={t('slipway')}
      after={(place) => (
        <>
          {aboutPlace(place, lists.places).length > 0 && <span className="soft"> {aboutPlace(place, lists.places)}</span>}
          {place.mapLink !== '' && (
            <a href={place.mapLink} target="_blank" rel="noreferrer">
              {t('map')}
            </a>
          )}
          {place.pictureId && (
            <img
              className="place-thumb"
              src={apiAddress(`/files/${place.pictureId}`)}
              alt={t('pictureOf', { name: place.name })}
            />
          )}
        </>
      )}
      more={{
        of: (place) => ({
          coordinates: place ? sayPoint(place) : '',
          address: place?.address ?? '',
          accessNote: place?.accessNote ?? '',
          capacity: place?.capacity ? String(place.capacity) : '',
          // One that is not offered any more is nobody's whole.
          partOf: lists.places.find((one) => one.id === place?.partOf)?.id ?? '',
          mapLink: place?.mapLink ?? '',
          pictureId: place?.pictureId ?? '',
        }),
        sent: ({ capacity, partOf, pictureId, ...values }) => ({
          ...values,
          pictureId: pictureId || null,
          capacity: numberOrNull(capacity),
          partOf: partOf || null,
        }),
        input: (values, change, place) => (
          <PlaceFields values={values} change={change} others={lists.places.filter((one) => one.id !== place?.id)} />
        ),
      }}
    />
  )
}

function Categories({ lists }: { lists: Lists }) {
  const colours = useColours().data ?? []
  return (
    <NameList
      words={{ name: t('nameOfTheCategory'), new: t('newCategory'), add: t('addCategory') }}
      title={t('categories')}
      about={t('whatKindOfEventIt')}
      path="/lists/categories"
      entries={lists.categories}
      retired={lists.retiredCategories}
      mayEdit={lists.mayEdit}
      example={t('assessment')}
      mark={(category) => <span className={`category-mark hue-${category.colour}`} aria-hidden="true" />}
      after={(category) =>
        category.mostInAWeek !== null && <span className="soft"> {t('mostInAWeekIs', { count: category.mostInAWeek })}</span>
      }
      more={{
        of: (category) => ({ colour: category?.colour ?? 'harbour', mostInAWeek: String(category?.mostInAWeek ?? '') }),
        sent: ({ colour, mostInAWeek }) => ({ colour, mostInAWeek: numberOrNull(mostInAWeek) }),
        input: ({ colour, mostInAWeek }, change) => (
          <>
            <select
              className="form-select"
              aria-label={t('colour')}
              value={colour}
              onChange={(event) => change({ colour: event.target.value })}
            >
              {colours.map((one) => (
                <option key={one.name} value={one.name}>
                  {hueName(one.name)}
                </option>
              ))}
            </select>
            <label className="in-a-week" title={t('mostInAWeekWhy')}>
              <span className="soft">{t('mostInAWeek')}</span>
              <input
                className="form-control"
                inputMode="numeric"
                maxLength={2}
                value={mostInAWeek}
                onChange={(event) => change({ mostInAWeek: event.target.value })}
              />
            </label>
          </>
        ),
      }}
    />
  )
}
