import { scaleLinear } from 'd3-scale'

/** From pale amber to mahogany, as the sauce concentrates; `tone` runs from 0 to 1. */
export const sauce = scaleLinear<string>()
  .domain([0, 0.3, 0.55, 0.8, 1])
  .range(['#e6c07f', '#d69f52', '#a3602c', '#6f3419', '#431a0f'])
  .clamp(true)

/** The line between fat and sauce, and around the drops of fat: neither tells them apart by its colour in every eye. */
export const FAT_EDGE = '#12161a'
