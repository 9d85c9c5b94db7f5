import { useState } from 'react'
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

/** Places may say where they are: an entry's own page then leads to a map. */
function Places({ lists }: { lists: Lists }) {
  const [coordinates, setCoordinates] = useState('')
  return (
    <NameList
      what="place"
      title="Places"
      about="Rooms and fields that can be taken twice: two events at one of them at the same time are shown as a clash. With degrees north and east, readers find it on a map."
      path="/lists/places"
      entries={lists.places}
      mayEdit={lists.mayEdit}
      example="Slipway"
      after={(place) =>
        place.latitude !== null && (
          <span className="soft">
            {' '}
            {place.latitude}, {place.longitude}
          </span>
        )
      }
      more={{ coordinates }}
      moreField="coordinates"
      onAdded={() => setCoordinates('')}
    >
      <input
        className="form-control"
        aria-label="Degrees north and east, if readers should find it on a map"
        placeholder="43.94, -60.03"
        value={coordinates}
        onChange={(event) => setCoordinates(event.target.value)}
      />
    </NameList>
  )
}

function Categories({ lists }: { lists: Lists }) {
  const colours = useColours().data ?? []
  const [colour, setColour] = useState('harbour')
  return (
    <NameList
      what="category"
      title="Categories"
      about="What kind of event it is. Readers see it, and the plan can be narrowed by it."
      path="/lists/categories"
      entries={lists.categories}
      mayEdit={lists.mayEdit}
      example="Assessment"
      mark={(category) => <span className={`category-mark hue-${category.colour}`} aria-hidden="true" />}
      more={{ colour }}
    >
      <select className="form-select" aria-label="Colour" value={colour} onChange={(event) => setColour(event.target.value)}>
        {colours.map((one) => (
          <option key={one.name} value={one.name}>
            {one.name}
          </option>
        ))}
      </select>
    </NameList>
  )
}
