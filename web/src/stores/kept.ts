import { useSession } from './session';

/**
 * The browser’s key for something kept of the person and the nursery at work: what one types is never shown to
 * another who signs in next, nor in another nursery.
 */
export function keptKey(name: string): string {
  const session = useSession();
  return `kauri.${session.nurseryId ?? 'none'}.${session.me?.person.id ?? 'nobody'}.${name}`;
}
