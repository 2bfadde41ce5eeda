import { useEffect, useRef, useState } from 'react'
import { useLocation } from 'wouter'
import type { useAppend } from '../api/batches'
import { isWhole, type Batch } from '../api/types'
import { STAGES } from '../stages/registry'
import type { View } from '../stages/useBench'

const isView = (asked: string | undefined): asked is View => asked === 'plan' || asked === 'correct' || asked === 'sheet' || asked === 'pass' || asked === 'story' || STAGES.some(({ stage }) => stage === asked)

/** Where what is to be done next belongs. */
function viewOf(batch: Batch): View {
  return batch.act.doing === 'want' || batch.act.doing === 'choose' ? 'plan' : batch.act.stage
}

/**
 * What is open: what the address asks for, or the stage in hand. That stays open, whatever a device or somebody else
 * records, and follows only what is done in it, or what the bar asked for once `lead` was called.
 */
export function useView(batch: Batch, asked: string | undefined, settled: boolean, append: ReturnType<typeof useAppend>) {
  const [, go] = useLocation()
  const [inHand, setInHand] = useState(() => viewOf(batch))
  const [known, setKnown] = useState(settled)
  if (settled && !known) {
    setKnown(true)
    setInHand(viewOf(batch))
  }
  const view = isView(asked) ? asked : inHand
  const open = (next: View | '') => go(`/batches/${batch.id}${next && `/${next}`}`)
  const worked = useRef(view)
  const led = useRef(false)
  const shown = useRef(view)
  const told = append.data
  useEffect(() => {
    if (!told || !isWhole(told)) return
    const next = viewOf(told)
    const follows = led.current || view === 'plan' || worked.current === view
    led.current = false
    if (!follows) return
    setInHand(next)
    if (next !== view) {
      shown.current = next
      open('')
      window.scrollTo({ top: 0 })
    }
    // Once for each answer.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [told])
  useEffect(() => {
    if (!append.isPending) worked.current = viewOf(batch)
  })
  // Who goes on by keyboard goes on in what was opened; after an act the bar has the focus.
  const panel = useRef<HTMLElement>(null)
  useEffect(() => {
    if (shown.current !== view) panel.current?.focus({ preventScroll: true })
    shown.current = view
  }, [view])
  const lead = () => {
    led.current = true
  }
  return { view, open, lead, panel }
}
