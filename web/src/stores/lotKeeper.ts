import { dayOf, isPast, type EpochDay } from '@kauri/core';
import type { AnswerOf, Evidence, LotDetail, LotRow, LotStamp } from '@kauri/core/contract';
import { computed, ref, shallowRef } from 'vue';
import { sameEvidence } from './lotFacts';
import { inSlices, parts } from './slices';

/** Lots whose records are fetched at once: so many are read in a few milliseconds. */
const AT_ONCE = 40;

type Records = AnswerOf<'lotRecords'>;

/** What the keeper asks of the server. */
export interface LotSource {
  stamps: (ids?: readonly string[]) => Promise<AnswerOf<'lotStamps'>>;
  /** `older` names those that changed since, but cannot be had as they are now. */
  records: (
    ids: string[],
    stamps: ReadonlyMap<string, LotStamp>,
  ) => Promise<Records & { older?: ReadonlySet<string> }>;
}

/**
 * A nursery’s lots in the browser: every lot by name, and the records of those that stand or stood lately. Those of the
 * past are fetched when they are looked for. Records arrive behind, a few lots at a time, and are shown once all are
 * here; what changed since is told by the lots’ stamps and alone fetched again.
 * @param today the nursery’s day
 * @param warm reads a lot that arrived, so that nothing is left to do when all are here
 */
export function lotKeeper(
  source: LotSource,
  today: () => EpochDay,
  warm: (row: LotRow, records: Evidence) => void,
) {
  /** Every lot by name, by code. */
  const index = shallowRef<ReadonlyMap<string, LotStamp>>(new Map());
  const lots = shallowRef<ReadonlyMap<string, LotRow>>(new Map());
  const evidence = shallowRef<ReadonlyMap<string, Evidence>>(new Map());
  /** Whether every lot that is not of the past is here, with its records. */
  const whole = ref(false);
  /** How far their arrival is: lots here, of so many. */
  const arrived = ref(0);
  const expected = ref(0);
  /** Lots of the past: not here, on their way, or here. */
  const past = ref<'away' | 'coming' | 'here'>('away');
  /** What changed last in the nursery when its lots were last asked about. */
  let seen: string | null = null;
  /** The stamp that each lot here was fetched at; none where it was written to since. */
  const stamps = new Map<string, string>();
  /** When each lot was last written to here: what was asked for before that is older, and is not taken. */
  const writtenAt = new Map<string, number>();
  let writes = 0;
  const writtenSince = (id: string, began: number) => (writtenAt.get(id) ?? 0) > began;

  const ofThePast = ({ closedOn }: LotStamp) => isPast(closedOn === null ? null : dayOf(closedOn), today());
  const pastLots = computed(() => [...index.value.values()].filter(ofThePast));

  /** Fetches lots some at a time, one request ahead of the reading, and shows them together. */
  async function bring(ids: readonly string[], told?: (share: number) => void): Promise<void> {
    const began = writes;
    const came: Records = { lots: [], evidence: [] };
    const outdated = new Set<string>();
    const asked = parts(ids, AT_ONCE);
    const ask = (i: number) => {
      const answer = i < asked.length ? source.records(asked[i], index.value) : null;
      // Where it fails it is awaited below; until then it is nobody's fault.
      answer?.catch(() => undefined);
      return answer;
    };
    let coming = ask(0);
    for (let i = 0; coming; i++) {
      const { lots: rows, evidence: records, older } = await coming;
      older?.forEach((id) => outdated.add(id));
      coming = ask(i + 1);
      const byLot = new Map(records.map((record) => [record.lotId, record]));
      await inSlices(rows, (row) => warm(row, byLot.get(row.id)!));
      came.lots.push(...rows);
      came.evidence.push(...records);
      told?.(came.lots.length);
    }
    const fresh = (id: string) => !writtenSince(id, began);
    for (const { id } of came.lots)
      if (fresh(id)) stamps.set(id, outdated.has(id) ? '' : (index.value.get(id)?.stamp ?? ''));
    show({
      lots: came.lots.filter(({ id }) => fresh(id)),
      evidence: came.evidence.filter(({ lotId }) => fresh(lotId)),
    });
  }

  /** What did not change stays the object it was, so that nothing is derived from it again. */
  function show({ lots: rows, evidence: records }: Records): void {
    const [lotsBefore, evidenceBefore] = [lots.value, evidence.value];
    const row = new Map(rows.map((now) => [now.id, now]));
    const record = new Map(records.map((now) => [now.lotId, now]));
    const nextLots = new Map<string, LotRow>();
    const nextEvidence = new Map<string, Evidence>();
    for (const id of index.value.keys()) {
      const [oldRow, oldRecords] = [lotsBefore.get(id), evidenceBefore.get(id)];
      const [newRow, newRecords] = [row.get(id) ?? oldRow, record.get(id) ?? oldRecords];
      if (newRow)
        nextLots.set(id, oldRow && JSON.stringify(oldRow) === JSON.stringify(newRow) ? oldRow : newRow);
      if (newRecords)
        nextEvidence.set(id, oldRecords && sameEvidence(oldRecords, newRecords) ? oldRecords : newRecords);
    }
    lots.value = nextLots;
    evidence.value = nextEvidence;
  }

  /** Fetches what is not here or not as it was, but for lots of the past nobody looked for. */
  async function fetchLots(named: AnswerOf<'lotStamps'>, began: number): Promise<void> {
    // A lot made here while the names were on their way is not among them yet.
    const mine = [...index.value].filter(([id]) => writtenSince(id, began));
    index.value = new Map([...named.stamps.map((lot) => [lot.id, lot] as const), ...mine]);
    const wanted = named.stamps.filter(
      (lot) =>
        stamps.get(lot.id) !== lot.stamp && (past.value === 'here' || stamps.has(lot.id) || !ofThePast(lot)),
    );
    expected.value = wanted.length;
    arrived.value = 0;
    await bring(
      wanted.map(({ id }) => id),
      (count) => (arrived.value = count),
    );
    for (const id of stamps.keys()) if (!index.value.has(id)) stamps.delete(id);
    seen = named.changed;
    whole.value = true;
  }

  let refreshing: Promise<void> | null = null;
  /** Takes in what changed; asked for while it is at it, it is the same. */
  function refresh(): Promise<void> {
    const began = writes;
    refreshing ??= source
      .stamps()
      .then((named) => fetchLots(named, began))
      .finally(() => (refreshing = null));
    return refreshing;
  }

  /** Takes in what changed of some lots, and of those only. */
  async function refreshSome(ids: readonly string[]): Promise<void> {
    if (!ids.length) return;
    if (!whole.value) return refresh();
    for (const some of parts(ids, AT_ONCE)) {
      const began = writes;
      const { stamps: named } = await source.stamps(some);
      drop(some.filter((id) => !writtenSince(id, began) && !named.some((lot) => lot.id === id)));
      const wanted = named.filter(
        (lot) =>
          !writtenSince(lot.id, began) &&
          stamps.get(lot.id) !== lot.stamp &&
          (past.value === 'here' || lots.value.has(lot.id) || !ofThePast(lot)),
      );
      if (!wanted.length) continue;
      index.value = new Map([...index.value, ...wanted.map((lot) => [lot.id, lot] as const)]);
      await bring(wanted.map(({ id }) => id));
    }
  }

  let looking: Promise<void> | null = null;
  /** Fetches the lots of the past, once. */
  function lookBack(): Promise<void> {
    if (past.value === 'here') return Promise.resolve();
    past.value = 'coming';
    looking ??= (refreshing ?? Promise.resolve())
      .then(() => bring(pastLots.value.map(({ id }) => id)))
      .then(() => void (past.value = 'here'))
      .catch((error: unknown) => {
        past.value = 'away';
        throw error;
      })
      .finally(() => (looking = null));
    return looking;
  }

  /** Takes in what the server answered after a record, so that every view follows. */
  function takeLots(details: readonly LotDetail[]): void {
    const named = new Map(index.value);
    writes++;
    for (const { lot } of details) {
      const { id, code, speciesId, sownOn } = lot;
      stamps.delete(id);
      writtenAt.set(id, writes);
      named.set(id, { id, code, speciesId, sownOn, stamp: '', closedOn: null });
    }
    index.value = named;
    lots.value = new Map([...lots.value, ...details.map(({ lot }) => [lot.id, lot] as const)]);
    evidence.value = new Map([...evidence.value, ...details.map((d) => [d.lot.id, d.evidence] as const)]);
  }

  /** Lots that are no more: taken back with what they came of. */
  function drop(ids: readonly string[]): void {
    const gone = new Set(ids.filter((id) => index.value.has(id)));
    if (!gone.size) return;
    const without = <T>(all: ReadonlyMap<string, T>) => new Map([...all].filter(([id]) => !gone.has(id)));
    index.value = without(index.value);
    lots.value = without(lots.value);
    evidence.value = without(evidence.value);
    for (const id of gone) stamps.delete(id);
  }

  return {
    drop,
    index,
    lots,
    evidence,
    whole,
    arrived,
    expected,
    past,
    pastLots,
    refresh,
    refreshSome,
    lookBack,
    takeLots,
    /** Whether something changed in the nursery since its lots were last asked about. */
    isBehind: (changed: string | null) => changed !== seen,
  };
}
