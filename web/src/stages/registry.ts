import { type ComponentType } from 'react'
import type { Stage } from '../api/types'
import { part } from '../ui/part'

/** A stage: what is done in it, and what stands beneath the pot meanwhile. */
interface Module {
  default: ComponentType
  Beneath?: ComponentType
}
type Load = () => Promise<Module>

const Nothing = () => null

const stage = (stage: Stage, label: string, load: Load, wide = false) => ({
  stage, label, load, wide, Panel: part(load), Beneath: part(async () => ({ default: (await load()).Beneath ?? Nothing })),
})

/** The stages of the work, in order: the name the ribbon gives each, and what is done in it, a chunk of its own. */
export const STAGES = [
  stage('strain', 'Strain', () => import('./StrainPanel')),
  stage('skim', 'Skim', () => import('./SkimPanel')),
  stage('reduce', 'Reduce', () => import('./ReducePanel')),
  stage('thicken', 'Thicken', () => import('./ThickenPanel')),
  // What is tasted runs along the whole way, and wants all of its width.
  stage('season', 'Season', () => import('./SeasonPanel'), true),
  stage('serve', 'Serve', () => import('./ServePanel')),
] as const

const loadPlan: Load = () => import('./plan/PlanPanel')

/** What is wanted, and the ways there. */
export const PlanPanel = part(loadPlan)

/** So long after the first stage is drawn the others are fetched, ms: it is painted first. */
const SOON_MS = 200

/** Fetch every stage once the first is drawn: at the stove none is waited for, and none may be missing offline. */
export function fetchStages(...more: (() => Promise<unknown>)[]) {
  const loads = [...more, loadPlan, ...STAGES.map((one) => one.load)]
  // What cannot be had now is asked for again where it is needed.
  const timer = setTimeout(() => loads.forEach((load) => void load().catch(() => undefined)), SOON_MS)
  return () => clearTimeout(timer)
}
