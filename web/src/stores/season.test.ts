import { dayOf, isoOf } from '@kauri/core';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { reactive } from 'vue';
import { useSeason } from './season';

const world = vi.hoisted(() => ({}) as { nursery: { catalogue: object; firstDay: number } });
vi.mock('./nursery', () => ({ useNursery: () => world.nursery }));

const TODAY = dayOf('2026-11-24');
const begin = (latitudeDeg = 54.6, firstDay = TODAY - 700) => {
  world.nursery = reactive({
    catalogue: { nursery: { latitudeDeg, today: isoOf(TODAY) } },
    firstDay,
  });
  const season = useSeason();
  season.look(TODAY);
  return season;
};
beforeEach(() => setActivePinia(createPinia()));

describe('the date the application shows', () => {
  it('is today until another is looked at, and never outside what there is to see', () => {
    const season = begin();
    expect([season.view, season.isToday]).toEqual([TODAY, true]);
    season.look(TODAY - 100.4);
    expect([season.viewIso, season.isToday]).toEqual([isoOf(TODAY - 100), false]);
    season.look(TODAY + 9000);
    expect(season.view).toBe(TODAY + 400);
    season.look(0);
    expect(season.view).toBe(TODAY - 730);
  });
  it('may be any day back while it is not known what there is to see', () => {
    const season = begin(54.6, -Infinity);
    season.look(TODAY - 3000);
    expect(season.view).toBe(TODAY - 3000);
  });
  it.each([54.6, -41.9])('lies on its strip, at %f°', (latitudeDeg) => {
    const season = begin(latitudeDeg);
    for (let away = -700; away <= 400; away += 37) {
      season.look(TODAY + away);
      expect(season.view).toBeGreaterThanOrEqual(season.strip.start);
      expect(season.view).toBeLessThanOrEqual(season.strip.end);
    }
  });
  it('keeps its strip while it is dragged to the end and over it, and takes the next when let go', () => {
    const season = begin();
    const { strip } = season;
    season.hold();
    season.look(strip.end);
    season.look(strip.end + 60);
    expect(season.strip).toEqual(strip);
    season.release();
    expect(season.strip.end).toBeGreaterThan(strip.end);
  });
  it('keeps the very strip while it moves within it, so that nothing is drawn again', () => {
    const season = begin();
    const { strip } = season;
    season.look(TODAY + 3);
    expect(season.strip).toBe(strip);
  });
});
