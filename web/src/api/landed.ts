import { changesPath, type Landed } from '@kauri/core/contract/changes';

/** How long until the server is asked again to be listened to where it refused, ms; longer each time. */
const FIRST_REST_MS = 3_000;
const LONGEST_REST_MS = 60_000;

/**
 * Hears of writes in a nursery as they land.
 * @param told of each write; of one that may be anything, whenever it listens anew and may have missed some
 * @returns ends it
 */
export function hearLanded(nurseryId: string, told: (landed: Landed) => void): () => void {
  let source: EventSource;
  let rest = FIRST_REST_MS;
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let again = false;
  function open() {
    source = new EventSource(`/api${changesPath.replace(':nursery', encodeURIComponent(nurseryId))}`);
    source.addEventListener('listening', () => {
      rest = FIRST_REST_MS;
      if (again) told({ area: null, lots: null, page: null });
      again = true;
    });
    source.onmessage = ({ data }: MessageEvent<string>) => told(JSON.parse(data) as Landed);
    source.onerror = () => {
      again = true;
      // Where the line only broke the browser asks again by itself.
      if (source.readyState !== EventSource.CLOSED) return;
      waiting = setTimeout(open, rest);
      rest = Math.min(LONGEST_REST_MS, rest * 2);
    };
  }
  open();
  const end = () => {
    clearTimeout(waiting);
    source.close();
  };
  // A page that goes is gone at once, and holds nothing.
  addEventListener('pagehide', end);
  return () => {
    removeEventListener('pagehide', end);
    end();
  };
}
