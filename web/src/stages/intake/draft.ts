import type { Batch, Kitchen, StartedIn } from '../../api/hooks'

/** What has been said so far of a strained liquid, as it was typed and tapped. */
export interface Draft {
  name: string
  panId: string
  burnerId: string
  method: 'jug' | 'dip' | 'scale'
  value: string
  hot: boolean
  fatBy: 'mm' | 'ml'
  fat: string
  saltBy: 'taste' | 'meter' | 'stock'
  verdict: 'flat' | 'nearly' | 'right' | 'salty' | 'too_salty'
  percent: string
  stock: 'salted' | 'reduced_salt' | 'low_salt' | 'unsalted'
  character: 'thin' | 'gelatin_rich' | 'milled'
}

const KEY = 'spissus-start'

const fresh: Draft = {
  name: '', panId: '', burnerId: '', method: 'jug', value: '', hot: true, fatBy: 'mm', fat: '',
  saltBy: 'taste', verdict: 'nearly', percent: '', stock: 'salted', character: 'gelatin_rich',
}

/** The draft of an interrupted start, if there is one. */
export function savedDraft(): Draft {
  try {
    return { ...fresh, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Draft>) }
  } catch {
    return fresh
  }
}

export function saveDraft(draft: Draft | null): void {
  if (draft) localStorage.setItem(KEY, JSON.stringify(draft))
  else localStorage.removeItem(KEY)
}

const unit = { jug: 'ml', dip: 'mm', scale: 'g' }

/** The start of a batch as a draft, to be corrected. */
export function draftOf(batch: Batch, kitchen: Kitchen): Draft {
  const { start } = batch
  return {
    name: batch.name,
    panId: kitchen.pans.find((pan) => pan.name === start.pan)?.id ?? '',
    burnerId: kitchen.burners.find((burner) => burner.name === start.burner)?.id ?? '',
    method: start.method,
    value: `${start.value} ${unit[start.method]}`,
    hot: start.hot,
    fatBy: start.fat_ml ? 'ml' : 'mm',
    fat: start.fat_ml ? `${start.fat_ml} ml` : start.fat_mm ? `${start.fat_mm} mm` : '',
    saltBy: start.salt_by,
    verdict: start.salt_verdict ?? fresh.verdict,
    percent: start.salt_percent === null ? '' : `${start.salt_percent} %`,
    stock: start.salt_stock ?? fresh.stock,
    character: start.character,
  }
}

/** The draft as the server takes it; null while the measurement is missing. */
export function startOf(draft: Draft): StartedIn | null {
  if (!draft.panId || !draft.burnerId || !draft.value.trim()) return null
  if (draft.saltBy === 'meter' && !draft.percent.trim()) return null
  const fat = draft.fat.trim()
  return {
    kind: 'started',
    pan_id: draft.panId,
    burner_id: draft.burnerId,
    liquid: {
      measured: { method: draft.method, value: draft.value, hot: draft.hot },
      ...(fat && (draft.fatBy === 'mm' ? { fat_mm: fat } : { fat_ml: fat })),
      salt:
        draft.saltBy === 'taste'
          ? { by: 'taste', verdict: draft.verdict }
          : draft.saltBy === 'meter'
            ? { by: 'meter', percent: draft.percent }
            : { by: 'stock', stock: draft.stock },
      character: draft.character,
    },
  }
}
