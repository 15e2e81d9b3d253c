import { useSession } from './session';

/**
 * The browser’s key for something kept of the nursery being worked in: what is typed in one nursery is never
 * shown in another, whoever signs in next.
 */
export function keptKey(name: string): string {
  return `kauri.${useSession().nurseryId ?? 'none'}.${name}`;
}
