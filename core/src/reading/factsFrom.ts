import { say } from '../speech/say';
import type { Cover, Home, HomeSpell } from '../home/home';
import { bedGeometry } from '../bed/geometry';
import { openAreaFraction } from '../bed/openAreaFraction';
import { dayOf } from '../calendar/day';
import { cellsPerM2, containerAirShare, containerVolume } from '../container/container';
import type {
  ContainerType,
  Evidence,
  BandWidth,
  LearntValue,
  LotRow,
  Medium,
  Place,
  Species,
  Stage,
} from '../contract';
import { carriesNodules } from '../growing/care';
import { plugScoreOf } from '../roots/rootFigures';
import { startOf } from '../species/startOf';
import { wakingOf } from '../species/waking';
import { heightLeftAfter } from '../growing/events';
import type { HeightLoss, LotFacts } from '../forecast/lotFacts';

/** What a nursery's catalogue says of the things a lot refers to. */
export interface Lookup {
  species: ReadonlyMap<string, Species>;
  places: ReadonlyMap<string, Place>;
  containers: ReadonlyMap<string, ContainerType>;
  media: ReadonlyMap<string, Medium>;
  /** What stands over places, by place; left out, all stand in the open. */
  covers?: ReadonlyMap<string, Cover>;
  /** Light of places in the growing season, share of the open sky's, by place; left out, all have all of it. */
  light?: ReadonlyMap<string, number>;
  /** Values learnt from the nursery's own lots and taken. */
  learnt?: readonly LearntValue[];
  /** Bands widened or narrowed by how past forecasts held. */
  bands?: readonly BandWidth[];
}

/** What of a stage makes a home. */
export type HomeStage = Pick<Stage, 'placeId' | 'containerTypeId' | 'densityPerM2'>;

/** What of a lot's row its facts come from; a lot that is only planned has as much. */
export type SownRow = Pick<
  LotRow,
  | 'id'
  | 'code'
  | 'speciesId'
  | 'sownOn'
  | 'origin'
  | 'cutting'
  | 'seedState'
  | 'extraWinters'
  | 'targetHeightCm'
  | 'leafFallOn'
> & { stage: HomeStage };
/** What was seen of a lot that its facts come from. */
export type SeenOfLot = Pick<
  Evidence,
  'counts' | 'sizes' | 'pulls' | 'movements' | 'stages' | 'events' | 'care' | 'roots'
>;

/**
 * Puts together what a forecast needs of a lot from the rows the server sends.
 * @throws Error when a row refers to something the catalogue does not hold
 */
export function factsFrom(row: SownRow, evidence: SeenOfLot, lookup: Lookup): LotFacts {
  const species = lookup.species.get(row.speciesId);
  if (!species) throw new Error(say`Lot ${row.code} names a species that is not in the list.`);
  return {
    id: row.id,
    code: row.code,
    ...learntFor(row, lookup, valuesFor(row, evidence, species)),
    extraWinters: row.extraWinters,
    waking: wakingOf(species.latin, startOf(species).protocols).waking,
    sownOn: dayOf(row.sownOn),
    ...((row.origin === 'cuttings' || (row.origin === 'split' && row.cutting !== null)) && {
      cuttings: true,
    }),
    seedState: row.seedState,
    home: homeOf(row.code, row.stage, lookup),
    homes: homesFrom(row, evidence, lookup),
    targetHeightCm: row.targetHeightCm,
    leafFallOn: row.leafFallOn === null ? null : dayOf(row.leafFallOn),
    counts: evidence.counts.map((c) => ({ day: dayOf(c.on), count: c.count })),
    sizes: evidence.sizes.map((s) => ({ day: dayOf(s.on), what: s.what, n: s.n, mean: s.mean, sd: s.sd })),
    pulls: [
      ...evidence.pulls.map((p) => ({ day: dayOf(p.on), scores: p.scores, ...beforeMove(p, evidence) })),
      ...plugsSeen(evidence),
    ],
    movements: evidence.movements.map((m) => ({ day: dayOf(m.on), from: m.from, to: m.to, count: m.count })),
    losses: lossesFrom(evidence),
    care: evidence.care.map((c) => ({ day: dayOf(c.on), done: c.done })),
    nodules: carriesNodules(species.latin),
    ...(lookup.bands?.length && {
      bandWidths: Object.fromEntries(lookup.bands.map(({ figure, width }) => [figure, width])),
    }),
  };
}

/** A species' values for a lot: cuttings come up when they root, a plant that was layered or came from outside starts at its own size. */
function valuesFor(row: SownRow, evidence: SeenOfLot, species: Species): Species['values'] {
  if (row.origin === 'layer' || row.origin === 'bought') {
    const potted = (what: 'height' | 'diameter') =>
      evidence.sizes.find((s) => s.what === what && s.on === row.sownOn)?.mean;
    return {
      ...species.values,
      winters: 0,
      seedlingHeightCm: potted('height') ?? species.values.seedlingHeightCm,
      seedlingDiameterMm: potted('diameter') ?? species.values.seedlingDiameterMm,
      // Its pouch, or its plug, is full of roots: past the exponential start.
      rootInitialMl: Math.max(species.values.rootInitialMl, species.values.rootLinearAtMl),
    };
  }
  const rooting = row.cutting === null ? undefined : startOf(species).cuttings[row.cutting];
  return rooting ? { ...species.values, winters: 0, emergenceDd: rooting.rootDd } : species.values;
}

/** The values with what the nursery learnt of this species in this container, where it took it. */
function learntFor(
  row: SownRow,
  { learnt = [] }: Lookup,
  species: Species['values'],
): Pick<LotFacts, 'species' | 'vigourSdLog'> {
  const taken = learnt.filter(
    (value) =>
      value.state === 'accepted' &&
      value.speciesId === row.speciesId &&
      value.containerTypeId === row.stage.containerTypeId,
  );
  const vigour = taken.find((value) => value.figure === 'vigour');
  const height = taken.find((value) => value.figure === 'height');
  return {
    species: {
      ...species,
      ...(vigour && { rootRatePerDd: species.rootRatePerDd * vigour.factor }),
      ...(height && {
        heightCm: { median: species.heightCm.median * height.factor, sdLog: height.sdLog },
      }),
    },
    ...(vigour && { vigourSdLog: vigour.sdLog }),
  };
}

/** Its homes in turn, for a lot that was moved. */
function homesFrom(row: SownRow, { stages }: SeenOfLot, lookup: Lookup): HomeSpell[] | undefined {
  if (stages.length < 2) return undefined;
  return stages.map((stage) => ({ from: dayOf(stage.startedOn), home: homeOf(row.code, stage, lookup) }));
}

/**
 * Whether plugs were scored before the lot was moved on the same day. Ids carry the instant they were made (UUIDv7), and
 * sort by it.
 */
function beforeMove({ entry, on }: { entry: string; on: string }, { stages }: SeenOfLot): { before?: true } {
  return stages.slice(1).some((stage) => stage.startedOn === on && entry < stage.id) ? { before: true } : {};
}

/** A stage as a home: what its cells or its share of a bed give a plant. */
export function homeOf(code: string, stage: HomeStage, lookup: Lookup): Home {
  const cover = lookup.covers?.get(stage.placeId);
  const light = lookup.light?.get(stage.placeId);
  if (stage.containerTypeId !== null) {
    const container = lookup.containers.get(stage.containerTypeId);
    if (!container) throw new Error(say`Lot ${code} names a container that is not in the list.`);
    return {
      kind: 'container',
      name: container.values.name,
      cellMl: containerVolume(container.values).value,
      depthMm: container.values.depthMm,
      airShare: containerAirShare(container.values).value,
      pitchMm: container.values.kind === 'flat' ? null : 1000 / Math.sqrt(cellsPerM2(container.values)),
      spaceable: container.values.spaceable ?? container.values.cellsPerTray > 1,
      ...(cover && { cover }),
      ...(light !== undefined && { light }),
    };
  }
  const place = lookup.places.get(stage.placeId)?.place;
  if (place?.kind !== 'bed') throw new Error(say`Lot ${code} stands in a bed that is not in the list.`);
  const settling = place.mediumId === null ? undefined : lookup.media.get(place.mediumId)?.values.settling;
  const geometry = bedGeometry(place.design, settling).value;
  return {
    kind: 'bed',
    densityPerM2: stage.densityPerM2 ?? 1,
    settledDepthMm: geometry.settledDepthMm,
    airShare: openAreaFraction(place.design.layers).value,
    headroomCm: geometry.headroomMm === null ? null : geometry.headroomMm / 10,
    ...(cover && { cover }),
    ...(light !== undefined && { light }),
  };
}

/** What took height off a lot, as its events were recorded, with the share of those then standing. */
function lossesFrom({ events, movements }: SeenOfLot): HeightLoss[] {
  return events
    .filter(({ what, hit, dead }) => heightLeftAfter[what] < 1 && hit > dead)
    .flatMap(({ on, what, hit, dead }) => {
      const standing = movements.reduce(
        (total, m) =>
          m.on > on
            ? total
            : total + (m.to === 'standing' ? m.count : 0) - (m.from === 'standing' ? m.count : 0),
        0,
      );
      return standing > 0 ? [{ day: dayOf(on), what, share: Math.min(1, (hit - dead) / standing) }] : [];
    });
}

/** Plugs scored at the root bench tell of the lot’s vigour like those of a pull. */
function plugsSeen(evidence: SeenOfLot): LotFacts['pulls'] {
  return evidence.roots.flatMap(({ entry, on, plant }) => {
    const score = plugScoreOf(plant);
    return score === null
      ? []
      : [{ day: dayOf(on), scores: [score], ...beforeMove({ entry, on }, evidence) }];
  });
}
