import type { Lists } from '../api'
import { useColours, useLists } from '../queries'
import { NameList } from './NameList'

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
  if (!lists.data) return <p className="page">Opening …</p>
  return (
    <main className="page lists">
      <h1>Categories and places</h1>
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
      what="place"
      title="Places"
      about="Rooms and fields that can be taken twice: two events at one of them at the same time are shown as a clash. With degrees north and east, readers find it on a map."
      path="/lists/places"
      entries={lists.places}
      retired={lists.retiredPlaces}
      mayEdit={lists.mayEdit}
      example="Slipway"
      after={(place) => sayPoint(place) && <span className="soft"> {sayPoint(place)}</span>}
      more={{
        field: 'coordinates',
        of: (place) => (place ? sayPoint(place) : ''),
        input: (value, change) => (
          <input
            className="form-control"
            aria-label="Degrees north and east, if readers should find it on a map"
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
      what="category"
      title="Categories"
      about="What kind of event it is. Readers see it, and the plan can be narrowed by it."
      path="/lists/categories"
      entries={lists.categories}
      retired={lists.retiredCategories}
      mayEdit={lists.mayEdit}
      example="Assessment"
      mark={(category) => <span className={`category-mark hue-${category.colour}`} aria-hidden="true" />}
      more={{
        field: 'colour',
        of: (category) => category?.colour ?? 'harbour',
        input: (value, change) => (
          <select className="form-select" aria-label="Colour" value={value} onChange={(event) => change(event.target.value)}>
            {colours.map((one) => (
              <option key={one.name} value={one.name}>
                {one.name}
              </option>
            ))}
          </select>
        ),
      }}
    />
  )
}
