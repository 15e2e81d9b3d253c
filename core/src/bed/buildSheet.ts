import { say } from '../speech/say';
import type { MediumValues } from '../medium/medium';
import { cutFromRolls, type RollCut } from '../stock/rolls';
import { buildOf, type BedDesign, type FootKind, type TimberClass } from './design';
import { bedGeometry } from './geometry';
import { timberCautions } from './life';
import { bedParts, type Fixings, type SheetPart, type TimberPart } from './parts';
import type { PriceList } from './prices';
import { bedWeight, CARRY_LIMIT_KG } from './weight';

/** A design and how many of it are built. */
export interface BuildItem {
  name: string;
  design: BedDesign;
  count: number;
  medium: MediumValues;
}

export interface SheetCut extends SheetPart {
  bed: string;
  cut: RollCut;
}

export interface BuildStep {
  what: string;
  caution?: string;
}

/** All that is needed to buy for and build some beds, before boards are cut. */
export interface BuildSheet {
  timber: (TimberPart & { bed: string })[];
  sheets: SheetCut[];
  fixings: Fixings;
  feet: { kind: FootKind; count: number }[];
  mediumL: { name: string; litres: number }[];
  tools: string[];
  steps: BuildStep[];
  /** Mesh, fixings and feet. Timber comes with the buying list. */
  sundriesCost: number;
}

/**
 * The build sheet of one or several beds together.
 * @throws Unfit with the bed's name when one cannot be built
 */
export function buildSheet(items: readonly BuildItem[], prices: PriceList): BuildSheet {
  const timber: BuildSheet['timber'] = [];
  const sheets: SheetCut[] = [];
  const fixings: Fixings = { brackets: 0, screws: 0, staples: 0, feet: 0 };
  const feet = new Map<FootKind, number>();
  const medium = new Map<string, number>();
  let sundriesCost = 0;
  for (const { name, design, count, medium: filling } of items) {
    if (!(Number.isInteger(count) && count > 0)) continue;
    const parts = bedParts(design);
    timber.push(...parts.timber.map((t) => ({ ...t, count: t.count * count, bed: name })));
    for (const sheet of parts.sheets) {
      const cut = cutFromRolls(sheet.lengthMm, sheet.widthMm, prices.rollWidthsMm).value;
      sheets.push({ ...sheet, count: sheet.count * count, bed: name, cut });
      const perM2 = { mesh: prices.meshPerM2, grid: prices.gridPerM2, cloth: prices.clothPerM2 }[sheet.what];
      sundriesCost += cut.boughtM2 * perM2 * sheet.count * count;
    }
    for (const key of Object.keys(fixings) as (keyof Fixings)[]) fixings[key] += parts.fixings[key] * count;
    const { kind } = buildOf(design).feet;
    feet.set(kind, (feet.get(kind) ?? 0) + parts.fixings.feet * count);
    sundriesCost += parts.fixings.feet * prices.foot[kind] * count;
    const litres = bedGeometry(design, filling.settling).value.mediumL * count;
    medium.set(filling.name, (medium.get(filling.name) ?? 0) + litres);
  }
  sundriesCost +=
    fixings.brackets * prices.bracket + fixings.screws * prices.screw + fixings.staples * prices.staple;
  return {
    timber,
    sheets,
    fixings,
    feet: [...feet].map(([kind, count]) => ({ kind, count })),
    mediumL: [...medium].map(([name, litres]) => ({ name, litres })),
    tools: [
      say`Saw, square, tape, pencil`,
      say`Drill driver and bits`,
      say`Tin snips or bolt cutters for mesh`,
      say`Staple gun`,
      say`Level and string line`,
      say`Gloves, eye and ear protection, mask`,
    ],
    steps: stepsOf(items),
    sundriesCost,
  };
}

function stepsOf(items: readonly BuildItem[]): BuildStep[] {
  const timbers = [...new Set(items.map((i) => buildOf(i.design).timber))] as TimberClass[];
  const heaviest = Math.max(0, ...items.map((i) => bedWeight(i.design, i.medium).value.totalKg));
  const riser = items.some((i) => buildOf(i.design).riserTiers > 0);
  const loosen = items.some((i) => buildOf(i.design).loosenSide);
  const lid = items.some((i) => i.design.lidAboveRimMm !== null);
  const legs = items.some((i) => buildOf(i.design).feet.kind === 'legs');
  return [
    {
      what: say`Cut all boards by the cutting diagram, longest pieces first; mark each with its name.`,
      caution: say`Eye and ear protection, mask. ${timbers.map((t) => timberCautions[t]).join(' ')}`,
    },
    { what: say`Screw the first tier together square: both diagonals the same.` },
    {
      what: say`Turn it over; lay cloth if any, then mesh, then grid over the underside; staple every 60 mm.`,
      caution: say`Cut mesh springs and has sharp ends: gloves and eye protection.`,
    },
    { what: say`Screw bearers across, evenly spaced; screw runners over the mesh’s edge.` },
    ...(legs ? [{ what: say`Screw the legs inside the corners and along the sides.` }] : []),
    {
      what: say`Set feet level on a string line: under the corners first, then along the sides and under bearers.`,
      caution: say`Stack only on ground or a deck rated for the load by someone qualified.`,
    },
    {
      what: say`Turn the frame over onto its feet and check it rocks nowhere.`,
      caution: say`Two people. Filled and watered the heaviest weighs ${Math.round(heaviest)} kg and is not moved again${heaviest > CARRY_LIMIT_KG ? say` by hand` : ''}.`,
    },
    ...(riser
      ? [
          {
            what: say`Set the riser on top with its corner cleats inside the tier below; do not screw it down.`,
          },
        ]
      : []),
    ...(loosen
      ? [{ what: say`Fix one long side with coach screws only, so that it comes off at lifting.` }]
      : []),
    {
      what: say`Fill with damp medium to the mark below the rim; water it; top up once it has settled.`,
      caution: say`Damp the mix before moving it: dust, moulds and Legionella. Mask, wash hands.`,
    },
    ...(lid
      ? [
          {
            what: say`Make the lid and lay it on the same day as the seed.`,
            caution: say`Mesh ends: gloves.`,
          },
        ]
      : []),
  ];
}
