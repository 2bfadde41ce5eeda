// What overlaps, is cut off, or runs past the edge of the page as it stands, a line each.
() => {
  const found = new Set()
  const width = document.documentElement.clientWidth
  const box = (element) => element.getBoundingClientRect()
  const seen = (element) => {
    const { width, height } = box(element)
    return width > 1 && height > 1 && !element.closest('.sr-only') && getComputedStyle(element).visibility !== 'hidden'
  }
  const meet = (a, b, across, down) =>
    Math.min(a.right, b.right) - Math.max(a.left, b.left) > across && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > down
  const name = (element) => (element.textContent || element.getAttribute('aria-label') || element.tagName).trim().slice(0, 40)

  if (document.documentElement.scrollWidth > width + 1) {
    const wide = [...document.querySelectorAll('body *')].filter((e) => box(e).right > width + 1 && !e.closest('[data-swipes]'))
    found.add(`the page is ${document.documentElement.scrollWidth - width} px too wide: ${wide.slice(-2).map(name).join(' | ')}`)
  }
  for (const svg of document.querySelectorAll('svg')) {
    const frame = box(svg)
    if (frame.width < 2) continue
    const texts = [...svg.querySelectorAll('text')].filter((text) => text.textContent.trim() && seen(text))
    texts.forEach((text, i) => {
      const one = box(text)
      if (one.left < frame.left - 2 || one.right > frame.right + 2 || one.top < frame.top - 3 || one.bottom > frame.bottom + 3)
        found.add(`out of its picture: ${name(text)}`)
      for (const other of texts.slice(0, i)) if (meet(one, box(other), 4, 6)) found.add(`words on words: ${name(text)} / ${name(other)}`)
    })
  }
  // What stands in the bar lies over the page.
  const controls = [...document.querySelectorAll('button, a, input:not([aria-hidden])')].filter((e) => seen(e) && !e.closest('[aria-label="Now"]'))
  controls.forEach((one, i) => {
    for (const other of controls.slice(0, i))
      if (!one.contains(other) && !other.contains(one) && meet(box(one), box(other), 3, 3)) found.add(`one control on another: ${name(one)} / ${name(other)}`)
  })
  // A wet thumb needs 44 px each way; a label takes taps for what it names.
  for (const element of document.querySelectorAll('button, a, input, textarea, select, [role=slider], [role=radio]')) {
    const tapped = element.matches('input') ? (element.closest('label') ?? element) : element
    const { width: across, height: down } = box(tapped)
    if (seen(element) && !element.closest('[aria-hidden], [inert]') && (across < 43.5 || down < 43.5))
      found.add(`too small to tap: ${name(element)} ${Math.round(across)} x ${Math.round(down)}`)
  }
  for (const element of document.querySelectorAll('button, dd, p, h1, h2, h3, span'))
    if (seen(element) && !element.closest('[data-swipes]')) {
      if (box(element).right > width + 1) found.add(`past the edge: ${name(element)}`)
      const { overflowX } = getComputedStyle(element)
      if (overflowX === 'hidden' && element.scrollWidth > element.clientWidth + 1) found.add(`cut off: ${name(element)}`)
    }
  return [...found]
}
