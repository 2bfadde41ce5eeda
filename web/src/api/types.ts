import type { Schemas } from './client'

/** A batch as the server tells it: what it could not work out is null, and named in `missing`. */
export type ToldBatch = Schemas['BatchOut']
type Drawn = 'pan' | 'burner' | 'start' | 'pot' | 'curve' | 'suggested' | 'served'
/** A batch with all that the bench draws. */
export type Batch = { [K in keyof ToldBatch]: K extends Drawn ? NonNullable<ToldBatch[K]> : ToldBatch[K] }
export type Pot = Schemas['PotOut']
export type Route = Schemas['RouteOut']
export type Routes = Schemas['RoutesOut']
export type Shown = Schemas['ShownOut']
export type Said = Schemas['SaidOut']
export type Part = Said[number]
export type Session = Schemas['SessionOut']
export type Kitchen = Schemas['KitchenOut']
export type PanShape = Schemas['PanShape']
export type Wanted = Schemas['Wanted']
export type StartedIn = Schemas['StartedIn']
export type Payload = Schemas['EventIn']['payload']
export type Line = Schemas['LineOut']
export type Estimated = Schemas['EstimatedOut']
export type Ingredient = Schemas['IngredientOut']
export type { Schemas }
export type Device = Schemas['DeviceOut']
export type Stage = Batch['act']['stage']
export type Answer = Batch['act']['answers'][number]

const drawn: readonly Drawn[] = ['pan', 'burner', 'start', 'pot', 'curve', 'suggested', 'served']

/** Whether the bench can draw it; without a readable start there is only its log. */
export const isWhole = (batch: ToldBatch): batch is Batch => drawn.every((part) => batch[part] !== null)
