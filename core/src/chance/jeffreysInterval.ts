import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { betaQuantile, jeffreys } from './betaCdf';

/**
 * Where a share lies with a chance, by what was counted: equal tails of Beta(alive + ½, dead + ½), and 0 or 1 at the ends.
 * @param level chance that it lies within, 0–1
 * @throws Unfit for counts below 0, none at all, or a level outside 0–1
 * @see Brown, Cai & DasGupta 2001, Statistical Science 16:101
 */
export function jeffreysInterval(
  { alive, dead }: { alive: number; dead: number },
  level: number,
): { lower: number; upper: number } {
  if (!(alive >= 0 && dead >= 0 && alive + dead > 0))
    throw new Unfit(say`Count at least one tree, alive or dead.`);
  if (!(level > 0 && level < 1)) throw new Unfit(say`A level lies between 0 and 1.`);
  const share = jeffreys(alive, alive + dead);
  return {
    lower: alive === 0 ? 0 : betaQuantile((1 - level) / 2, share),
    upper: dead === 0 ? 1 : betaQuantile((1 + level) / 2, share),
  };
}
