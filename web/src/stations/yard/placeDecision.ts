import { bedGeometry, type Quantity, say, inWords } from '@kauri/core';
import { roomWords } from './placeWords';
import type { ShownPlace } from './usePlaces';

interface Show {
  show: (value: number, quantity: Quantity, digits?: number) => string;
}

const groundWords = inWords({ paving: 'paving', gravel: 'gravel', soil: 'soil', weeds: 'weedy ground' });

/**
 * What to do about a place, if anything, else what room it has.
 * @param settling of the medium it is filled with; the usual share where that is not known
 */
export function placeDecision(
  { place, occupancy, lots }: ShownPlace,
  tight: readonly string[],
  preferences: Show,
  settling?: number,
) {
  const { show } = preferences;
  const room = roomWords(occupancy, preferences);
  const path = tight.length ? say` No barrow path to ${tight.join(', ')}.` : '';
  const over = occupancy.kind === 'bed' ? occupancy.freeM2 < -0.005 : occupancy.layout.freeLengthMm < 0;
  if (over)
    return {
      headline: say`More stands here than fits: ${room}`,
      detail: say`Move a lot, or correct its area.${path}`,
      urgent: true,
    };
  if (place.place.kind === 'bed') {
    const { design } = place.place;
    const g = bedGeometry(design, settling).value;
    if (!g.gapEnough) {
      return {
        headline: say`Raise it: a gap of ${show(design.airGapMm, 'timber')} is too small`,
        detail: say`Over ${groundWords[design.ground]} roots need ${show(g.neededGapMm, 'timber')} of air, or they bridge it and pruning is lost.${path}`,
        urgent: true,
      };
    }
    if (g.shallow) {
      return {
        headline: say`Shallow: growth will be held back`,
        detail: say`It settles to ${show(g.settledDepthMm, 'timber')}; below ${show(150, 'timber')} growth is visibly reduced. Add a riser.${path}`,
        urgent: false,
      };
    }
  }
  const full = room === 'full';
  return {
    headline: full
      ? say`Full`
      : lots.length
        ? say`Room left: ${room.replace(' free', '')}`
        : say`Empty: all of it is free`,
    detail:
      (full
        ? say`Nothing more can be sown here until a lot moves out.`
        : place.place.kind === 'bed'
          ? say`The air gap is enough and the depth is good for a season.`
          : say`Whole trays in ranks across the bench, one lot after another.`) + path,
    urgent: false,
  };
}
