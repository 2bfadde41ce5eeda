import { useSession } from './session'

/** What whoever is here may do in the kitchen, as its server has it. */
export function useRights() {
  const session = useSession().data
  const role = session?.role
  return { records: role !== 'guest', arranges: role === 'owner' || role === 'cook', owns: role === 'owner', somebody: role !== 'station' && session?.claimed !== false }
}
