import { say } from '@kauri/core';
import type { RouteLocationRaw } from 'vue-router';

/** One step of a nursery's first hour. */
export interface FirstStep {
  key: 'place' | 'weather' | 'places' | 'sow' | 'count' | 'people';
  words: string;
  /** What it is for. */
  why: string;
  to: RouteLocationRaw | null;
  done: boolean;
  /** Kauri works without it; it only says more with it. */
  optional: boolean;
}

/** What of a nursery is there. */
export interface Begun {
  /** Where it lies, in words. */
  where: string;
  weatherDays: number;
  places: number;
  /** A lot of it; null while there is none. */
  lot: string | null;
  /** Whether anything that came up was counted. */
  counted: boolean;
  people: number;
  /** May whoever looks invite others. */
  owns: boolean;
}

/** The steps of the first hour, each ticked by what is there. */
export function firstSteps({ where, weatherDays, places, lot, counted, people, owns }: Begun): FirstStep[] {
  const steps: FirstStep[] = [
    {
      key: 'place',
      words: say`Say where the nursery lies`,
      why: where,
      to: null,
      done: true,
      optional: false,
    },
    {
      key: 'weather',
      words: say`Bring in your weather`,
      why: say`A table of daily highs and lows, from a station or a service. Until then seasons are reckoned from latitude and height, and every date is wider.`,
      to: { name: 'records' },
      done: weatherDays > 0,
      optional: true,
    },
    {
      key: 'places',
      words: say`Add the first bed or bench`,
      why: say`Length, width and boards are enough: what it holds, in trees and in litres, follows from them.`,
      to: { name: 'yard', query: { add: 'bed' } },
      done: places > 0,
      optional: false,
    },
    {
      key: 'sow',
      words: say`Sow the first lot`,
      why: say`What, when, how much and where. Kauri says how many seeds it takes for the trees you want, with the odds.`,
      to: places > 0 ? { name: 'grow', query: { new: '1' } } : null,
      done: lot !== null,
      optional: false,
    },
    {
      key: 'count',
      words: say`Count what comes up`,
      why: say`The first count turns what seed usually does into what yours does.`,
      to: lot === null ? null : { name: 'grow', params: { lot }, query: { do: 'count' } },
      done: counted,
      optional: false,
    },
    {
      key: 'people',
      words: say`Invite who works with you`,
      why: say`A link is enough. Each signs in as themselves, and what they record bears their name.`,
      to: { name: 'people' },
      done: people > 1,
      optional: true,
    },
  ];
  return steps.filter(({ key }) => key !== 'people' || owns);
}

/** Whether the first hour is over: all that Kauri needs is there. */
export const isBegun = (steps: readonly FirstStep[]): boolean =>
  steps.every(({ done, optional }) => done || optional);
