import { say } from '../speech/say';
import { sum, type Worked } from '../working/working';
import { buildOf, type BedDesign } from './design';
import { MESH_SEASONS, serviceLife } from './life';
import { bedGeometry } from './geometry';
import { bedParts } from './parts';
import { boardPrice, type PriceList } from './prices';
import type { MediumValues } from '../medium/medium';

export interface BedCost {
  timber: number;
  mesh: number;
  fixings: number;
  medium: number;
  total: number;
  perSeason: number;
  perTree: number;
  seasons: number;
}

/** Share of medium topped up each season after the first: what settling took. */
function topUp(medium: MediumValues): number {
  return medium.settling;
}

/**
 * What a bed costs to build and fill, spread straight over its seasons and its trees. Timber is counted by the
 * metre with a tenth of waste; the buying list gives it exactly.
 * @param trees saleable trees a season
 */
export function bedCost(
  design: BedDesign,
  medium: MediumValues,
  prices: PriceList,
  trees: number,
): Worked<BedCost> {
  const parts = bedParts(design);
  const build = buildOf(design);
  const perM3 = prices.timberPerM3[build.timber];
  const timber = parts.timber.reduce((t, p) => t + p.count * boardPrice(p.board, p.lengthMm, perM3), 0) * 1.1;
  const mesh = parts.sheets.reduce((t, s) => {
    const perM2 = { mesh: prices.meshPerM2, grid: prices.gridPerM2, cloth: prices.clothPerM2 }[s.what];
    return t + (s.count * s.lengthMm * s.widthMm * perM2) / 1e6;
  }, 0);
  const f = parts.fixings;
  const fixings =
    f.brackets * prices.bracket +
    f.screws * prices.screw +
    f.staples * prices.staple +
    f.feet * prices.foot[build.feet.kind];
  const g = bedGeometry(design, medium.settling).value;
  const fill = (g.mediumL / 1000) * (medium.costPerM3 ?? 0);
  const life = serviceLife(design).value.median;
  const total = timber + mesh + fixings + fill;
  const mediumASeason = fill / life + fill * topUp(medium);
  const perSeason = (timber + fixings) / life + mesh / MESH_SEASONS + mediumASeason;
  return {
    value: {
      timber,
      mesh,
      fixings,
      medium: fill,
      total,
      perSeason,
      perTree: trees > 0 ? perSeason / trees : Infinity,
      seasons: life,
    },
    working: [
      {
        what: say`To build and fill`,
        expression: sum`${timber} + ${mesh} + ${fixings} + ${fill}`,
        result: total,
        unit: prices.currency,
        inputs: [
          {
            name: say`timber with a tenth of waste`,
            value: timber,
            unit: prices.currency,
            origin: 'starting',
          },
          { name: say`mesh, grid and cloth`, value: mesh, unit: prices.currency, origin: 'starting' },
          { name: say`fixings and feet`, value: fixings, unit: prices.currency, origin: 'starting' },
          { name: 'medium', value: fill, unit: prices.currency, origin: 'starting' },
        ],
      },
      {
        what: say`A season`,
        expression: sum`(${timber} + ${fixings}) ÷ ${life} + ${mesh} ÷ ${MESH_SEASONS} + ${mediumASeason}`,
        result: perSeason,
        unit: prices.currency,
        inputs: [
          { name: say`seasons of the frame`, value: life, origin: 'starting' },
          { name: say`seasons of the mesh`, value: MESH_SEASONS, origin: 'starting' },
          {
            name: say`medium topped up and renewed`,
            value: mediumASeason,
            unit: prices.currency,
            origin: 'starting',
          },
        ],
      },
      ...(trees > 0
        ? [
            {
              what: say`A tree`,
              expression: sum`${perSeason} ÷ ${trees}`,
              result: perSeason / trees,
              unit: prices.currency,
            },
          ]
        : []),
    ],
  };
}
