import { rootFigures } from '@kauri/core';
import type { Evidence, LotRow } from '@kauri/core/contract';
import { csvOf } from '../../tables/csv';

/** What records are named by: of lots that are at hand. */
export interface RecordNames {
  lots: ReadonlyMap<string, LotRow>;
  evidence: ReadonlyMap<string, Evidence>;
  speciesName: (id: string) => string;
  placeName: (id: string) => string;
  /** Name of a container; empty for none. */
  containerName: (id: string | null) => string;
}

type Line = Record<string, string | number | boolean>;
/** A value as a cell: blank where there is none, to six figures where it was worked out. */
const orBlank = (value: number | string | null | undefined): number | string =>
  typeof value === 'number' ? Number(value.toPrecision(6)) : (value ?? '');
/** A figure's name as columns are named: “qualityIndex” → “quality_index”. */
const column = (figure: string) => figure.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** One line for each record of every lot, each with its lot before it, by day and code. */
function linesOf(names: RecordNames, of: (evidence: Evidence) => (Line & { on: string })[]): string {
  const lines = [...names.evidence].flatMap(([lotId, evidence]) => {
    const code = names.lots.get(lotId)?.code;
    return code === undefined ? [] : of(evidence).map(({ on, ...line }) => ({ lot: code, day: on, ...line }));
  });
  return csvOf(lines.sort((a, b) => a.day.localeCompare(b.day) || a.lot.localeCompare(b.lot)));
}

/** Every lot with where it stands and how many of it are where. Heights in cm. */
const lots = ({ lots: rows, speciesName, placeName, containerName }: RecordNames): string =>
  csvOf(
    [...rows.values()]
      .sort((a, b) => a.code.localeCompare(b.code))
      .map(({ code, speciesId, origin, sownOn, seedState, stage, held, lastRecordOn }) => ({
        lot: code,
        species: speciesName(speciesId),
        begun_from: origin,
        sown: sownOn,
        seed_state: seedState,
        place: placeName(stage.placeId),
        container: containerName(stage.containerTypeId),
        trays: orBlank(stage.trays),
        density_per_m2: orBlank(stage.densityPerM2),
        area_m2: orBlank(stage.areaM2),
        there_since: stage.startedOn,
        in_the_ground: held.sown,
        standing: held.standing,
        lifted: held.lifted,
        sent: held.sent,
        planted: held.planted,
        out: held.out,
        last_record: orBlank(lastRecordOn),
      })),
  );

const counts = (names: RecordNames): string =>
  linesOf(names, (e) =>
    e.counts.map(({ on, count, multi, damaged, patches, note }) => ({
      on,
      standing: count,
      several_stems: orBlank(multi),
      damaged: orBlank(damaged),
      patches: patches.map((patch) => `${patch.name}: ${patch.counted}`).join('; '),
      note,
    })),
  );

/** Plugs scored 0 loose to 4 solid, those of a pull in one cell. */
const pulls = (names: RecordNames): string =>
  linesOf(names, (e) =>
    e.pulls.map(({ on, scores, spoiled, note }) => ({ on, scores: scores.join(' '), spoiled, note })),
  );

/** Plants laid on the rosette or seen at a glance; shares 0 to 1. */
const roots = (names: RecordNames): string =>
  linesOf(names, (e) =>
    e.roots.map(({ on, plant, spoiled, note }) => ({
      on,
      seen: plant.kind,
      height_cm: orBlank(plant.heightCm),
      collar_mm: orBlank(plant.diameterMm),
      shoot_dry_g: orBlank(plant.shootDryG),
      root_dry_g: orBlank(plant.rootDryG),
      ...Object.fromEntries(
        Object.entries(rootFigures(plant)).map(([figure, value]) => [
          column(figure),
          orBlank(value as number | null),
        ]),
      ),
      spoiled: spoiled ? 'yes' : '',
      note,
    })),
  );

const events = (names: RecordNames): string =>
  linesOf(names, (e) =>
    e.events.map(({ on, what, hit, dead, patch, photos, note }) => ({
      on,
      what,
      hit,
      dead,
      patch,
      photos: photos.length,
      note,
    })),
  );

/** Work done without moving it; what only some work has is blank elsewhere. */
const work = (names: RecordNames): string =>
  linesOf(names, (e) =>
    e.care.map(({ on, done: { what, ...more }, note }) => {
      const has = more as Record<string, string | number | null | undefined>;
      return {
        on,
        what,
        water_mm: orBlank(has.mm),
        feed_g_per_l: orBlank(has.gramsPerLitre),
        feed_months: orBlank(has.ratedMonths),
        inoculum: orBlank(has.source),
        apart: orBlank(has.apart),
        stake: orBlank(has.stake),
        staked: orBlank(has.staked),
        weeded: orBlank(has.how),
        pruned_to_cm: orBlank(has.toCm),
        note,
      };
    }),
  );

/** Moves on, with what they were moved into and what their roots looked like on the way. */
const moves = (names: RecordNames): string =>
  linesOf(names, (e) =>
    e.shifts.map(({ on, to, roots: seen, note }) => {
      const stage = e.stages.find(({ id }) => id === to);
      return {
        on,
        place: stage ? names.placeName(stage.placeId) : '',
        container: stage ? names.containerName(stage.containerTypeId) : '',
        trays: orBlank(stage?.trays),
        density_per_m2: orBlank(stage?.densityPerM2),
        area_m2: orBlank(stage?.areaM2),
        looked_at: orBlank(seen?.looked),
        circling: orBlank(seen?.circling),
        teased: orBlank(seen?.teased),
        shaved: orBlank(seen?.shaved),
        rejected: orBlank(seen?.rejected),
        note,
      };
    }),
  );

/** The ledger: every movement from account to account; one that takes another back says so. */
const movements = (names: RecordNames): string =>
  linesOf(names, (e) =>
    e.movements.map(({ on, from, to, count, reverses, note }) => ({
      on,
      from,
      to,
      count,
      takes_back: reverses === null ? '' : 'yes',
      note,
    })),
  );

/** Tables of what was recorded, by the name of their file. */
export const recordTables = { lots, counts, pulls, roots, events, work, moves, movements };
