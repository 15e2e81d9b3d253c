import { say } from '@kauri/core';
import type { Returned, Sending } from '@kauri/core/contract';
import { count } from '../../words/numbers';

/** Trees of a parcel that a sending took, and that have not come back. */
export const stillOut = ({ parts, returns }: Pick<Sending, 'parts' | 'returns'>, parcelId: string): number =>
  parts.reduce((sum, part) => sum + (part.parcelId === parcelId ? part.count : 0), 0) -
  returns
    .flatMap((one) => one.parts)
    .reduce((sum, part) => sum + (part.parcelId === parcelId ? part.count : 0), 0);

/** What came back at once, in words: how many, how many of them dead, whether they are wanted again. */
export function returnedWords({ parts, wantedAgain }: Pick<Returned, 'parts' | 'wantedAgain'>): string {
  const came = parts.reduce((sum, part) => sum + part.count, 0);
  const dead = parts.reduce((sum, part) => sum + part.dead, 0);
  const back = dead
    ? say`${count(came)} came back, ${count(dead)} of them dead`
    : say`${count(came)} came back`;
  if (wantedAgain === null) return back;
  return wantedAgain ? say`${back}; wanted again` : say`${back}; not wanted again`;
}
