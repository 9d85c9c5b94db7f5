import type { Lists } from '../types'
import { useColours } from '../calendars/queries'
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
      after={(place) => sayPoint(place) && <span className="soft"> {sayPoint(place)}</span>}
      more={{
        field: 'coordinates',
        of: (place) => (place ? sayPoint(place) : ''),
        input: (value, change) => (
          <input
            className="form-control"
            aria-label={t('degreesNorthAndEastIf')}
            placeholder="43.94, -60.03"
            value={value}
            onChange={(event) => change(event.target.value)}
          />
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
      more={{
        field: 'colour',
        of: (category) => category?.colour ?? 'harbour',
        input: (value, change) => (
          <select className="form-select" aria-label={t('colour')} value={value} onChange={(event) => change(event.target.value)}>
            {colours.map((one) => (
              <option key={one.name} value={one.name}>
                {hueName(one.name)}
              </option>
            ))}
          </select>
        ),
      }}
    />
  )
}
