import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'
import { useBackCloses } from './useBackCloses'

interface Props {
  open: boolean
  onClose: () => void
  title: string
  description?: string
  children: ReactNode
}

/** A sheet over the page: from below on a phone, in the middle elsewhere. */
export function Sheet({ open, onClose, title, description, children }: Props) {
  useBackCloses(open, onClose)
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <Dialog.Content
          className="fixed inset-x-0 bottom-0 z-50 max-h-[92dvh] overflow-y-auto rounded-t-2xl border border-line bg-ground p-5 text-ink shadow-xl md:inset-auto md:top-1/2 md:left-1/2 md:w-[34rem] md:-translate-x-1/2 md:-translate-y-1/2 md:rounded-2xl"
          {...(description ? {} : { 'aria-describedby': undefined })}
        >
          <div className="mb-4 flex items-start justify-between gap-4">
            <div>
              <Dialog.Title className="text-xl font-bold">{title}</Dialog.Title>
              {description && <Dialog.Description className="mt-1 text-quiet">{description}</Dialog.Description>}
            </div>
            <Dialog.Close
              aria-label="Close"
              className="-mt-1 -mr-1 grid size-12 shrink-0 place-items-center rounded-xl text-2xl leading-none text-quiet hover:text-ink"
            >
              ×
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
