export const keys = {
  session: ['session'] as const,
  kitchen: ['kitchen'] as const,
  larder: ['larder'] as const,
  mixtures: ['mixtures'] as const,
  devices: ['devices'] as const,
  batches: ['batches'] as const,
  shelf: ['shelf'] as const,
  brigade: ['brigade'] as const,
  houseDishes: ['house-dishes'] as const,
  batch: (id: string) => ['batch', id] as const,
}
