import {
  dayOf,
  ruleTerms,
  type Agenda,
  type AgendaLine,
  type EpochDay,
  type TodayItem,
  type When,
} from '@kauri/core';
import type { AnswerOf } from '@kauri/core/contract';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../api/client';
import { useNursery } from './nursery';
import { useSeason } from './season';

export type Counts = Record<When, number>;

/** Acts of each kind of urgency the server is asked for; more are this browser's own. */
export const SHOWN_OF_EACH = 40;
/** The server is asked again for a list that it is working out, ms; longer each time, to a stated rest. */
const AGAIN_MS = 1000;
/** And for one that is there, but older than what was written since, ms. */
const BEHIND_MS = 10_000;
const LONGER_EACH_TIME = 1.5;
const LONGEST_MS = 60_000;
/** A hundred people who heard of one write do not ask at one moment, ms. */
const SPREAD_MS = 3000;

/**
 * Today as the server last worked it out, and how much presses. The list that this browser works out itself, from every
 * forecast of the nursery, is `useToday`’s: it is worked out once somebody wants more than a figure of it.
 */
export const useAgenda = defineStore('agenda', () => {
  const nursery = useNursery();
  const season = useSeason();
  const kept = shallowRef<{ nurseryId: string; answer: AnswerOf<'today'> } | null>(null);
  const fromServer = computed(() => (kept.value?.nurseryId === nursery.nurseryId ? kept.value.answer : null));
  /** The server’s list, where it is of the day looked at. */
  const servers = computed<Agenda<TodayItem> | null>(() => {
    const answer = fromServer.value;
    if (answer === null || dayOf(answer.on) !== season.view) return null;
    return { lines: answer.acts.map(lineOf), hidden: [], muted: 0 };
  });
  /** Of the list worked out here: the day it is of, and its acts by urgency; null while there is none. */
  const own = shallowRef<{ day: EpochDay; counts: Counts } | null>(null);
  /** Whether this browser's own list is wanted from now on. */
  const wanted = ref(false);

  const isHere = () => own.value?.day === season.today;

  let again: ReturnType<typeof setTimeout> | undefined;
  function stop(): void {
    clearTimeout(again);
    again = undefined;
  }
  const askAgain = (ms: number) => (again = setTimeout(() => void load().catch(() => undefined), ms));
  let slower = 1;
  const rest = (ms: number) => Math.min(LONGEST_MS, ms * slower);
  async function load(): Promise<void> {
    stop();
    const { nurseryId } = nursery;
    const answer = await call('today', { params: nursery.params, query: { each: SHOWN_OF_EACH } });
    stop();
    if (nurseryId !== nursery.nurseryId) return;
    if (answer.workedAt !== null) kept.value = { nurseryId, answer };
    if (!answer.working || isHere()) return void (slower = 1);
    askAgain(rest(answer.workedAt === null ? AGAIN_MS : BEHIND_MS));
    slower *= LONGER_EACH_TIME;
  }
  /** What was written since it was asked for is to be in it: a little later, and once for what is written together. */
  function follow(): void {
    if (!isHere()) again ??= askAgain(BEHIND_MS + Math.random() * SPREAD_MS);
  }

  /** Acts to do now, of today whatever date the ribbon looks at; null while nobody knows. */
  const now = computed<number | null>(() => {
    if (isHere()) return own.value!.counts.now;
    const answer = fromServer.value;
    return answer && dayOf(answer.on) === season.today ? answer.counts.now : null;
  });
  return { fromServer, servers, own, wanted, load, follow, stop, now };
});

/** A line of the server’s list as the screen shows its own. */
function lineOf(act: AnswerOf<'today'>['acts'][number]): AgendaLine<TodayItem> {
  const { rule, part, of, subjectId, about, when, trees, title, reason, waiting } = act;
  const by = act.by === null ? null : dayOf(act.by);
  return {
    item: {
      rule,
      part,
      of,
      subjectId,
      about,
      when,
      by,
      trees,
      figures: {},
      words: { title, reason, waiting },
    },
    when,
    work: ruleTerms[rule].work,
    loss: act.loss,
    minutes: act.minutes,
    lossPerHour: act.lossPerHour,
    assigned: act.assignedTo === null ? null : { assignedTo: act.assignedTo },
  };
}
