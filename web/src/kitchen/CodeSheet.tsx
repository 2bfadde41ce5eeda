import { useState } from 'react'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'

interface Props {
  title: string
  description: string
  code: string
  /** Where the code opens, as a link; none where it is typed beside a name. */
  link?: string
  /** Where the code is typed. */
  typed: string
  onClose: () => void
}

/** A code that is shown this once: as a link, and to be read out. */
export function CodeSheet({ title, description, code, link, typed, onClose }: Props) {
  const [copied, setCopied] = useState(false)
  return (
    <Sheet open onClose={onClose} title={title} description={description}>
      {link && (
        <>
          <p className="mb-1 text-quiet">The link to send:</p>
          <p className="mb-3 rounded-xl border-2 border-line px-3 py-2 font-mono break-all select-all">{link}</p>
        </>
      )}
      <p className="mb-1 text-quiet">{typed}</p>
      <p className="mb-4 text-3xl font-bold tracking-widest break-all select-all">{code}</p>
      <Button look="main" onClick={() => void navigator.clipboard.writeText(link ?? code).then(() => setCopied(true), () => undefined)}>
        {copied ? 'Copied' : link ? 'Copy the link' : 'Copy the code'}
      </Button>
    </Sheet>
  )
}
