import { say } from '../speech/say';
import { Unfit } from '../working/unfit';
import { sum, type Step, type Worked } from '../working/working';
import type { BedDesign, FoundBed, Ground } from './design';
import { dressedSize } from './dressedSize';

/** Share of its depth a medium loses in a season as it decomposes, where nothing better is known. */
export const DEFAULT_SETTLING = 0.2;

/** Below this settled depth growth is visibly reduced, mm. */
export const SHALLOW_MM = 150;

/** Air gap that keeps pruning going, mm, by what is underneath. */
export const NEEDED_GAP_MM: Record<Ground, number> = { paving: 50, gravel: 100, soil: 200, weeds: 250 };

export interface BedGeometry {
  insideLengthMm: number;
  insideWidthMm: number;
  outsideLengthMm: number;
  outsideWidthMm: number;
  insideAreaM2: number;
  tierDepthsMm: number[];
  frameHeightMm: number;
  /** What the boards' names add up to: the depth a grower might think there is. */
  nominalHeightMm: number;
  looseDepthMm: number;
  settledDepthMm: number;
  /** Medium to buy, loose. */
  mediumL: number;
  shallow: boolean;
  neededGapMm: number;
  gapEnough: boolean;
  /** Room for shoots between the fresh surface of the medium and the lid, mm. */
  headroomMm: number | null;
}

/**
 * Sizes of a bed from its design: actual boards, depth after settling, medium to buy.
 * @param settling share of depth lost in a season, 0–0.6
 * @throws Unfit with a sentence when the design cannot be built
 */
export function bedGeometry(design: BedDesign, settling = DEFAULT_SETTLING): Worked<BedGeometry> {
  if (!(settling >= 0 && settling <= 0.6)) throw new Unfit(say`Settling is a share between 0 and 0.6.`);
  if (design.found) return foundGeometry(design, design.found, settling);
  if (design.tiers.length === 0) throw new Unfit(say`A bed needs at least one tier of boards.`);
  const boards = design.tiers.map(dressedSize);
  const walls = 2 * boards[0].thicknessMm;
  const outward = design.measured === 'inside' ? walls : 0;
  const outsideLengthMm = design.lengthMm + outward;
  const outsideWidthMm = design.widthMm + outward;
  const insideLengthMm = outsideLengthMm - walls;
  const insideWidthMm = outsideWidthMm - walls;
  if (!(insideLengthMm > 0 && insideWidthMm > 0)) {
    throw new Unfit(say`The boards are thicker than the bed: nothing is left inside.`);
  }
  const tierDepthsMm = boards.map((b) => b.widthMm);
  const frameHeightMm = tierDepthsMm.reduce((a, b) => a + b, 0);
  const nominalHeightMm = boards.reduce((a, b) => a + b.nominalWidthMm, 0);
  const insideAreaM2 = (insideLengthMm * insideWidthMm) / 1e6;
  const filled = filledTo(design, frameHeightMm, insideAreaM2, settling);
  const working: Step[] = [
    {
      what: say`Inside area`,
      expression: sum`${insideLengthMm} × ${insideWidthMm} ÷ 1000000`,
      result: insideAreaM2,
      unit: 'm²',
      inputs: [
        { name: say`boards’ actual thickness`, value: boards[0].thicknessMm, unit: 'mm', origin: 'standard' },
        {
          name: say`${design.measured} size typed`,
          value: `${design.lengthMm} × ${design.widthMm}`,
          unit: 'mm',
          origin: 'choice',
        },
      ],
    },
    {
      what: say`Frame height from actual boards`,
      expression: tierDepthsMm.map(String).join(' + '),
      result: frameHeightMm,
      unit: 'mm',
      inputs: design.tiers.map((name, i) => ({
        name: say`tier ${i + 1}, a ${name}`,
        value: tierDepthsMm[i],
        unit: 'mm',
        origin: 'standard' as const,
      })),
      source: 'Dressed sizes: PS 20-20 (inch names), EN 336 (millimetre names)',
    },
    {
      what: say`The boards’ names overstate the depth by`,
      expression: sum`${nominalHeightMm} − ${frameHeightMm}`,
      result: nominalHeightMm - frameHeightMm,
      unit: 'mm',
    },
    ...filled.working,
  ];
  return {
    value: {
      insideLengthMm,
      insideWidthMm,
      outsideLengthMm,
      outsideWidthMm,
      insideAreaM2,
      tierDepthsMm,
      frameHeightMm,
      nominalHeightMm,
      ...filled.value,
    },
    working,
  };
}

/** What the medium in a bed comes to, of whatever its walls are. */
function filledTo(
  design: BedDesign,
  frameHeightMm: number,
  insideAreaM2: number,
  settling: number,
): Worked<
  Pick<
    BedGeometry,
    'looseDepthMm' | 'settledDepthMm' | 'mediumL' | 'shallow' | 'neededGapMm' | 'gapEnough' | 'headroomMm'
  >
> {
  const looseDepthMm = frameHeightMm - design.fillBelowRimMm;
  if (!(looseDepthMm > 0)) throw new Unfit(say`Filled that far below the rim, the bed holds no medium.`);
  const settledDepthMm = looseDepthMm * (1 - settling);
  const mediumL = insideAreaM2 * looseDepthMm;
  const neededGapMm = NEEDED_GAP_MM[design.ground];
  return {
    value: {
      looseDepthMm,
      settledDepthMm,
      mediumL,
      shallow: settledDepthMm < SHALLOW_MM,
      neededGapMm,
      gapEnough: design.airGapMm >= neededGapMm,
      headroomMm: design.lidAboveRimMm === null ? null : design.lidAboveRimMm + design.fillBelowRimMm,
    },
    working: [
      {
        what: say`Depth when filled`,
        expression: sum`${frameHeightMm} − ${design.fillBelowRimMm}`,
        result: looseDepthMm,
        unit: 'mm',
      },
      {
        what: say`Depth after a season’s settling`,
        expression: sum`${looseDepthMm} × (1 − ${settling})`,
        result: settledDepthMm,
        unit: 'mm',
        inputs: [{ name: say`settling in a season`, value: settling, origin: 'starting' }],
      },
      {
        what: say`Medium to buy, loose`,
        expression: sum`${insideAreaM2} × ${looseDepthMm}`,
        result: mediumL,
        unit: 'L',
      },
    ],
  };
}

/**
 * Sizes of a bed that is something found. Its area is the mean over the depth filled, volume over depth (a frustum: A·(1 +
 * q + q²)/3), so that each tree's share of medium is right where the walls lean; its inside length and width are those of
 * an upright box of that area and the same proportions.
 */
function foundGeometry(design: BedDesign, found: FoundBed, settling: number): Worked<BedGeometry> {
  const { heightMm, wallMm, taper, shape } = found;
  if (!(heightMm > 0)) throw new Unfit(say`What a bed is made of has walls of some height.`);
  if (!(wallMm >= 0)) throw new Unfit(say`A wall has a thickness of 0 or more.`);
  if (!(taper > 0 && taper <= 1))
    throw new Unfit(say`A floor is as large as the rim or smaller, and more than 0.`);
  const outward = design.measured === 'inside' ? 2 * wallMm : 0;
  const outsideLengthMm = design.lengthMm + outward;
  const outsideWidthMm = (shape === 'round' ? design.lengthMm : design.widthMm) + outward;
  const rimLengthMm = outsideLengthMm - 2 * wallMm;
  const rimWidthMm = outsideWidthMm - 2 * wallMm;
  if (!(rimLengthMm > 0 && rimWidthMm > 0))
    throw new Unfit(say`Its walls are thicker than the bed: nothing is left inside.`);
  const looseDepthMm = heightMm - design.fillBelowRimMm;
  const round = shape === 'round' ? Math.PI / 4 : 1;
  /** Size at the surface over that at the rim, and at the floor over that at the surface. */
  const surface = taper + ((1 - taper) * Math.max(0, looseDepthMm)) / heightMm;
  const q = taper / surface;
  const surfaceM2 = (round * rimLengthMm * rimWidthMm * surface ** 2) / 1e6;
  const insideAreaM2 = (surfaceM2 * (1 + q + q ** 2)) / 3;
  const filled = filledTo(design, heightMm, insideAreaM2, settling);
  const as = Math.sqrt((insideAreaM2 * 1e6) / (rimLengthMm * rimWidthMm));
  return {
    value: {
      insideLengthMm: rimLengthMm * as,
      insideWidthMm: rimWidthMm * as,
      outsideLengthMm,
      outsideWidthMm,
      insideAreaM2,
      tierDepthsMm: [],
      frameHeightMm: heightMm,
      nominalHeightMm: heightMm,
      ...filled.value,
    },
    working: [
      {
        what: say`Surface of the medium when filled`,
        expression: sum`${round} × ${rimLengthMm} × ${rimWidthMm} × ${surface}^2 ÷ 1000000`,
        result: surfaceM2,
        unit: 'm²',
        inputs: [
          { name: say`width at the surface over that at the rim`, value: surface, origin: 'choice' },
          ...(shape === 'round'
            ? [{ name: say`a circle’s share of its square`, value: round, origin: 'standard' as const }]
            : []),
        ],
      },
      {
        what: say`Mean area over its depth`,
        expression: sum`${surfaceM2} × (1 + ${q} + ${q}^2) ÷ 3`,
        result: insideAreaM2,
        unit: 'm²',
        inputs: [{ name: say`width at the floor over that at the surface`, value: q, origin: 'choice' }],
      },
      ...filled.working,
    ],
  };
}
