import { say } from '@kauri/core';
import type { EpochDay } from '@kauri/core';
import type { LotView } from '../workers/forecast.worker';

export interface RibbonWindow {
  words: string;
  from: EpochDay;
  to: EpochDay;
  colour: string;
  /** A risk rather than a window to use. */
  dashed: boolean;
}

/** The selected lot's windows that fall within a strip. */
export function ribbonWindows(
  { forecast, standing }: LotView,
  strip: { start: EpochDay; end: EpochDay },
): RibbonWindow[] {
  const found: RibbonWindow[] = [];
  const add = (words: string, from: EpochDay, to: EpochDay, colour: string, dashed = false) => {
    const [a, b] = [Math.max(from, strip.start), Math.min(to, strip.end)];
    if (a < b) found.push({ words, from: a, to: b, colour, dashed });
  };
  if (standing.status === 'lifted' || standing.status === 'ended' || standing.status === 'failed') return [];
  if (standing.status === 'waiting') {
    add(say`comes up`, forecast.emergence.band.p10, forecast.emergence.band.p90, 'var(--leaf)');
    return found;
  }
  if (
    standing.decision.kind === 'lift' ||
    standing.decision.kind === 'grow-on' ||
    standing.decision.kind === 'raise-lid'
  ) {
    add(say`lift`, forecast.lifting.from, forecast.lifting.until, 'var(--ink)');
    if (forecast.lid) add(say`at the lid`, forecast.lid.p50, forecast.lifting.from, 'var(--leaf)', true);
    return found;
  }
  add(say`plug holds`, forecast.ready.p50, forecast.bound.p10, 'var(--leaf)');
  add(
    say`root-bound risk`,
    Math.max(forecast.ready.p50, forecast.bound.p10),
    forecast.bound.p90,
    'var(--root)',
    true,
  );
  return found;
}
