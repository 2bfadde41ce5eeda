import { use } from 'react'
import { Units } from './units'

/** A batch in the open formats, to keep or to take elsewhere. */
export function FileLinks({ id }: { id: string }) {
  const units = use(Units)
  const files = [
    [`/api/v1/batches/${id}/file`, 'JSON'],
    [`/api/v1/batches/${id}/files/events.csv?units=${units}`, 'entries, a table'],
    [`/api/v1/batches/${id}/files/readings.csv?units=${units}`, 'readings, a table'],
    [`/api/v1/batches/${id}/files/recipe.jsonld?units=${units}`, 'a recipe, JSON-LD'],
    [`/api/v1/batches/${id}/files/batch.txt?units=${units}`, 'plain text'],
  ] as const
  return (
    <p className="flex flex-wrap items-center gap-x-4">
      <span className="text-quiet">In a file:</span>
      {files.map(([href, said]) => (
        <a key={href} href={href} download className="inline-flex min-h-12 items-center font-semibold underline">
          {said}
        </a>
      ))}
    </p>
  )
}
