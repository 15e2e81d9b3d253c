import type { Area } from './paths';

/** Where a member of a nursery hears of writes as they land: an event stream, beside the routes. */
export const changesPath = '/nurseries/:nursery/changes';

/** A page names itself by this header, so that it need not fetch what it wrote itself. */
export const PAGE_HEADER = 'x-kauri-page';

/** One write that landed; what it says is fetched by whoever shows it. */
export interface Landed {
  /** The area of the contract it belongs to; null where any may have changed. */
  area: Area | null;
  /** Lots it is about; null where it may be about any. */
  lots: readonly string[] | null;
  /** The page that wrote it, by the name it gave itself. */
  page: string | null;
}
