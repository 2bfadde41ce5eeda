import type { Batch } from '../api/types'
import { LogSheet, type Append } from './LogSheet'
import { AddSheet, MeatProbe, NoteSheet, ReadingSheet, SauceProbe, TasteSheet } from './sheets'

interface Props {
  batch: Batch
  append: Append
  onClose: () => void
}

const SHEETS = { reading: ReadingSheet, add: AddSheet, taste: TasteSheet, probe: SauceProbe, probe_meat: MeatProbe, note: NoteSheet, log: LogSheet } as const

export type SheetName = keyof typeof SHEETS

/** The sheet that lies over the bench. */
export default function OpenSheet({ name, ...props }: Props & { name: SheetName }) {
  const Open = SHEETS[name]
  return <Open {...props} />
}
