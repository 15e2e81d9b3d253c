import { isoOf } from '@kauri/core';
import type { BodyInputOf, TodayBook, TodayRules } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { v7 as newId } from 'uuid';
import { computed, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { useSeason } from './season';

/** What was done about acts of Today, which rules are muted or earlier, and who may be asked. */
export const useTodayBook = defineStore('today', () => {
  const nursery = useNursery();
  const season = useSeason();
  const book = shallowRef<TodayBook | null>(null);
  let loaded: string | null = null;
  async function load() {
    // Others mark acts too: it is read anew whenever Today is opened.
    if (loaded !== nursery.nurseryId) book.value = null;
    book.value = await call('todayBook', { params: nursery.params });
    loaded = nursery.nurseryId;
  }
  async function mark(body: BodyInputOf<'markAct'>): Promise<void> {
    book.value = await call('markAct', { params: nursery.params, body });
  }
  /** Marks several acts, all or none. */
  async function markTogether(body: BodyInputOf<'markTogether'>): Promise<void> {
    book.value = await call('markTogether', { params: nursery.params, body });
  }
  async function undoTogether(marks: string[]): Promise<void> {
    book.value = await call('undoMarks', { params: nursery.params, body: { id: newId(), marks } });
  }
  async function undo(mark: string): Promise<void> {
    book.value = await call('undoMark', { params: { ...nursery.params, mark }, body: { id: newId() } });
  }
  async function setRules(version: number, rules: TodayRules): Promise<void> {
    book.value = await call('setTodayRules', { params: nursery.params, body: { version, rules } });
  }
  async function makeCalendar(): Promise<string> {
    const { path } = await call('makeCalendar', { params: nursery.params, body: {} });
    await load();
    return path;
  }
  async function dropCalendar(): Promise<void> {
    book.value = await call('dropCalendar', { params: nursery.params, body: {} });
  }
  const on = computed(() => isoOf(Math.min(season.view, season.today)));
  const nameOf = (personId: string | null) => book.value?.people.find((p) => p.id === personId)?.name ?? '';
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
