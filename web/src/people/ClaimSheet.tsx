import { useState } from 'react'
import { Sheet } from '../ui/Sheet'
import { Toggle } from '../ui/Toggle'
import { NameForm } from './NameForm'

/** A kitchen that was begun at once is given a name; or, by somebody who has one already, brought along. */
export default function ClaimSheet({ known, onClose }: { known: boolean; onClose: () => void }) {
  const [joining, setJoining] = useState(!known)
  const [bring, setBring] = useState(true)
  return (
    <Sheet
      open
      onClose={onClose}
      title={joining ? 'Keep this kitchen' : 'Sign in to another kitchen'}
      description={joining ? 'A name and a password, and it is yours on any device. Everything in it stays as it is.' : 'What you began here can come along.'}
    >
      {!joining && (
        <div className="mb-3">
          <Toggle label="Bring along what I began here" on={bring} onTap={() => setBring(!bring)} />
          {!bring && <p className="mt-1 text-base text-heat">What is in this kitchen is let go then.</p>}
        </div>
      )}
      <NameForm joining={joining} bring={bring} act={joining ? 'Keep it' : 'Sign in'} onJoining={setJoining} onDone={onClose} />
    </Sheet>
  )
}
