import { Link } from 'wouter'
import { useShelf } from '../api/shelf'
import { JarLine } from '../shared/JarLine'

/** What the kitchen keeps, as it stands in fridge and freezer: what is to be used soonest first. */
export default function Shelf() {
  const { data } = useShelf()
  if (!data?.length) return null
  return (
    <section className="mt-6">
      <h2 className="mb-2 text-base font-semibold text-quiet">Kept cold</h2>
      <ul className="grid gap-x-6 gap-y-3 border-b-4 border-steel pb-3 sm:grid-cols-2 xl:grid-cols-4">
        {data.map((jar) => (
          <li key={jar.id} className="min-w-0">
            <Link href={`/shelf/${jar.id}`} className="block hover:underline">
              <JarLine jar={jar} />
            </Link>
          </li>
        ))}
      </ul>
    </section>
  )
}
