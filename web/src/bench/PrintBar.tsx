import type { ReactNode } from 'react'
import { Link } from 'wouter'
import { Button } from '../ui/Button'

export const beside = 'inline-flex min-h-12 items-center px-3 font-semibold underline'

/** Over what is printed, and not printed itself: print it, or go back to the pot. */
export function PrintBar({ back, children }: { back: string; children?: ReactNode }) {
  return (
    <div className="mb-4 flex flex-wrap items-center gap-2 print:hidden">
      <Button look="main" onClick={() => window.print()}>
        Print it
      </Button>
      <Link href={back} className={beside}>
        Back to the pot
      </Link>
      {children}
    </div>
  )
}
