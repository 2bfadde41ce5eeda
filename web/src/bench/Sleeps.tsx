import { useState } from 'react'
import { Button } from '../ui/Button'

const TOLD = 'spissus-told-of-sleep'

/** Said once: the screen may go dark, and what else is missing without HTTPS. */
export default function Sleeps() {
  const [told, setTold] = useState(() => localStorage.getItem(TOLD) !== null)
  if (told) return null
  return (
    <div role="status" className="mx-4 mt-2 flex flex-wrap items-center gap-x-4 gap-y-2 rounded-xl border-2 border-line px-4 py-2 md:mx-7">
      <p className="min-w-64 flex-1">
        Set this screen to stay on while you cook: the browser cannot.
        {!isSecureContext && ' Nor can the page be loaded again without the network. Both come with HTTPS: the README of Spissus says how.'}
      </p>
      <Button
        onClick={() => {
          localStorage.setItem(TOLD, 'yes')
          setTold(true)
        }}
      >
        I have set it
      </Button>
    </div>
  )
}
