import { Button } from '../ui/Button'

interface Props {
  title: string
  text: string
  onRetry?: () => void
}

/** A page with nothing on it but what went wrong, and what to do about it. */
export function Notice({ title, text, onRetry }: Props) {
  return (
    <main className="mx-auto max-w-md p-8 pt-24">
      <h1 className="mb-2 text-2xl">{title}</h1>
      <p className="mb-6 text-lg text-quiet">{text}</p>
      {onRetry && (
        <Button look="main" onClick={onRetry}>
          Try again
        </Button>
      )}
    </main>
  )
}
