import { lazy, type ComponentType } from 'react'
import type { Stage } from '../api/hooks'

/** A stage: what is done in it, and what stands beneath the pot meanwhile. */
interface Module {
  default: ComponentType
  Beneath?: ComponentType
}
type Load = () => Promise<Module>

const Nothing = () => null

const stage = (stage: Stage, label: string, load: Load) => ({
  stage, label, load, Panel: lazy(load), Beneath: lazy(async () => ({ default: (await load()).Beneath ?? Nothing })),
})

/** The stages of the work, in order: the name the ribbon gives each, and what is done in it, a chunk of its own. */
export const STAGES = [
  stage('strain', 'Strain', () => import('./StrainPanel')),
  stage('skim', 'Skim', () => import('./SkimPanel')),
  stage('reduce', 'Reduce', () => import('./ReducePanel')),
  stage('thicken', 'Thicken', () => import('./ThickenPanel')),
  stage('season', 'Season', () => import('./SeasonPanel')),
  stage('serve', 'Serve', () => import('./ServePanel')),
] as const

const loadPlan: Load = () => import('./plan/PlanPanel')

/** What is wanted, and the ways there. */
export const PlanPanel = lazy(loadPlan)

/** Fetch every stage once the first is drawn: at the stove none is waited for, and none may be missing offline. */
export function fetchStages(...more: (() => Promise<unknown>)[]) {
  const fetchAll = () => {
    for (const load of [loadPlan, ...STAGES.map((one) => one.load), ...more]) void load()
  }
  // One browser has no word of when it has nothing else to do.
  if ('requestIdleCallback' in window) requestIdleCallback(fetchAll)
  else setTimeout(fetchAll, 1000)
}
