/** Ribbon and bar before there is anything to say: what the page shows before any script has run, and looks the same. */
export function Skeleton() {
  return (
    <div className="skeleton" aria-hidden="true">
      <b>spissus</b>
      <i />
      <u />
    </div>
  )
}
