import { useId } from 'react'

/** How a thickener looks while it is made: its colour, and whether it lies in crumbs or runs. */
const LOOKS = {
  sand: { fill: '#e8d6a6', crumbs: true },
  straw: { fill: '#d9b76a', crumbs: true },
  hazelnut: { fill: '#a56a33', crumbs: true },
  chocolate: { fill: '#4d2716', crumbs: false },
  milk: { fill: '#f4f0e6', crumbs: false },
  clear: { fill: '#dfe6e4', crumbs: false },
  puree: { fill: '#c07a3a', crumbs: true },
} as const

export type Looks = keyof typeof LOOKS

/** Some of it on a spatula. */
export function Swatch({ looks, width = 72 }: { looks: Looks; width?: number }) {
  const id = useId()
  const { fill, crumbs } = LOOKS[looks]
  return (
    <svg width={width} height={width * 0.5} viewBox="0 0 72 36" aria-hidden="true" className="block shrink-0">
      <path d="M2,18H22" stroke="var(--steel)" strokeWidth="6" strokeLinecap="round" />
      <clipPath id={id}>
        <path d="M20,8Q44,1 68,10Q71,20 66,29Q42,36 20,28Q15,18 20,8Z" />
      </clipPath>
      <path d="M20,8Q44,1 68,10Q71,20 66,29Q42,36 20,28Q15,18 20,8Z" fill={fill} stroke="var(--ink)" strokeWidth="1.5" />
      <g clipPath={`url(#${id})`} fill="none" stroke="#fff" strokeLinecap="round" opacity={0.5}>
        {crumbs ? <path d="M26,14h.1M34,22h.1M41,11h.1M48,24h.1M56,15h.1M61,24h.1M29,26h.1" strokeWidth="4" /> : <path d="M27,12Q42,7 60,13" strokeWidth="4" />}
      </g>
    </svg>
  )
}
