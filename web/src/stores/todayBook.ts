import { bookAhead, isoOf, say } from '@kauri/core';
import type { BodyInputOf, TodayBook, TodayRules } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import type { Outcome } from '../device/keptAnswer';
import { useDevice } from './device';
import { useNursery } from './nursery';
import { useOthers } from './others';
import { useSeason } from './season';
import { useSession } from './session';

/** Writes that answer with the book. */
const marking = new Set<string>(['markAct', 'markTogether', 'undoMark', 'undoMarks']);

/** What was done about acts of Today, which rules are muted or earlier, and who may be asked. */
export const useTodayBook = defineStore('today', () => {
  const nursery = useNursery();
  const season = useSeason();
  const device = useDevice();
  const session = useSession();
  const kept = shallowRef<TodayBook | null>(null);
  /** With what was marked here and is not sent yet. */
  const book = computed(() => {
    const by = session.me!.person.name;
    const mine = device.waiting.filter(({ nurseryId }) => nurseryId === nursery.nurseryId);
    return kept.value && mine.reduce((before, { write }) => bookAhead(before, write, by), kept.value);
  });
  let loaded: string | null = null;
  async function load() {
    // Others mark acts too: it is read anew whenever Today is opened.
    if (loaded !== nursery.nurseryId) kept.value = null;
    kept.value = await call('todayBook', { params: nursery.params });
    loaded = nursery.nurseryId;
  }
  useOthers().follow(['today'], async () => void (loaded !== null && (await load())));
  device.follow({
    taken(answered) {
      const mine = answered.filter(
        ({ act: { nurseryId, write } }) => nurseryId === nursery.nurseryId && marking.has(write.route),
      );
      if (mine.length) kept.value = mine[mine.length - 1].answer as TodayBook;
    },
    back: async () => void (loaded !== null && (await load())),
  });

  /** @param words what was marked, as it is listed while it waits for a network */
  const mark = (body: BodyInputOf<'markAct'>, words: string): Promise<Outcome> =>
    device.write('markAct', nursery.params, body, words);
  /** Marks several acts, all or none. */
  const markTogether = (body: BodyInputOf<'markTogether'>, words: string): Promise<Outcome> =>
    device.write('markTogether', nursery.params, body, words);
  async function undoTogether(write: string, marks: string[]): Promise<void> {
    if (await device.takeBack(write)) return;
    await device.write('undoMarks', nursery.params, { id: newId(), marks }, say`Take marks back`);
  }
  async function undo(mark: string): Promise<void> {
    if (await device.takeBack(mark)) return;
    await device.write('undoMark', { ...nursery.params, mark }, { id: newId() }, say`Take a mark back`);
  }
  async function setRules(version: number, rules: TodayRules): Promise<void> {
    kept.value = await call('setTodayRules', { params: nursery.params, body: { version, rules } });
  }
  async function makeCalendar(): Promise<string> {
    const { path } = await call('makeCalendar', { params: nursery.params, body: {} });
    await load();
    return path;
  }
  async function dropCalendar(): Promise<void> {
    kept.value = await call('dropCalendar', { params: nursery.params, body: {} });
  }
  const on = computed(() => isoOf(Math.min(season.view, season.today)));
  const nameOf = (personId: string | null) =>
    personId === null || !book.value
      ? ''
      : (book.value.people.find((p) => p.id === personId)?.name ?? say`somebody who left`);
  return {
    book,
    load,
    mark,
    markTogether,
    undoTogether,
    undo,
    setRules,
    makeCalendar,
    dropCalendar,
    on,
    nameOf,
  };
});
