import { dayOf, say, inWords, word } from '@kauri/core';
import type { Proposal, ProposedLine, SeasonStep } from '@kauri/core/contract';
import { useNursery } from '../../stores/nursery';
import { usePreferences } from '../../stores/preferences';
import { useSeason } from '../../stores/season';
import { shortDate, yearOf } from '../../words/dates';
import { count, percent, several } from '../../words/numbers';
import { money } from '../../words/money';

type Frees = NonNullable<ProposedLine['frees']>;

const stepWords: Record<SeasonStep, string> = inWords({
  waiting: 'Waiting for its turn',
  weeks: 'Running the weeks of every route ahead',
  choosing: 'Choosing between them',
  placing: 'Finding places',
  replaying: 'Trying it in simulated seasons',
  done: 'Planned',
});

/** What more of something there is only so much of would serve a line. */
const thingWords: Record<Frees['things'][number]['of'], (more: number, currency: string) => string> = {
  money: (more, currency) => say`${money(Math.ceil(more), currency)} more to spend`,
  seed: (more) => say`seed for ${count(more)} more plants than is in store`,
  treated: (more) => say`seed treated already for ${count(more)} more plants`,
  cuttings: (more) => say`${several(more, 'cutting')} more than the stock beds give`,
};

/** How far a proposal is. */
export function stateWords({ state, step, share, fault, result }: Proposal): string {
  if (state === 'failed') return fault ?? say`Planning failed.`;
  if (state === 'stopped')
    return result ? say`Stopped: the best it had by then` : say`Stopped before it had anything`;
  if (state === 'working') return `${stepWords[step]} … ${step === 'waiting' ? '' : percent(share)}`;
  return stepWords.done;
}

/** How near a proposal is to the best there can be. */
export function boundWords({ result }: Proposal): string {
  if (!result) return '';
  const { cost, bound } = result;
  if (bound === null) return say`found at once; how near the best is not known`;
  const gap = cost <= 0 ? 0 : (cost - bound) / cost;
  if (gap < 1e-6) return say`no plan costs less`;
  return say`no plan costs ${percent(Math.max(1, Math.ceil(100 * gap)) / 100)} less`;
}

export function useSeasonWords() {
  const nursery = useNursery();
  const season = useSeason();
  const { show } = usePreferences();
  const day = (iso: string) => shortDate(dayOf(iso), yearOf(season.today));
  const placeLike = (id: string): string => {
    const place = nursery.lookup.places.get(id)?.place;
    if (!place) return say`a place no longer in the yard`;
    const what = { bed: 'bed', bench: 'bench', ground: 'ground', bay: 'bay' }[place.kind];
    return say`${what} like ${place.name}`;
  };
  /** Why a line is short, in a sentence. */
  function shortWords({ why, short, best }: ProposedLine): string {
    const trees = several(short, 'tree');
    if (why === 'no route') return say`${trees} short: no route of the species gives this form.`;
    if (why === 'no week')
      return say`${trees} short: sown in no week to come are they there in time and to size.`;
    if (why === 'not worth it')
      return say`${trees} short: at best they are there in time and to size in ${percent(best)} of forecasts, and a lot would cost more than that fetches.`;
    return say`${trees} short: there is not enough for them beside the rest.`;
  }
  /** What would free a line that does not fit. */
  function freesWords({ frees }: ProposedLine): string | null {
    if (!frees) return null;
    const rooms = frees.rooms.map(
      ({ placeId, m2, from, until }) =>
        say`${show(m2, 'area', 1)} more of ${placeLike(placeId)} from ${day(from)} to ${day(until)}`,
    );
    const hours = frees.hours.map(
      ({ week, hours: more }) =>
        say`${Number((Math.ceil(more * 10) / 10).toFixed(1))} more hours in the week of ${day(week)}`,
    );
    const currency = nursery.catalogue!.prices.list.currency;
    const things = frees.things.map(({ of, more }) => thingWords[of](more, currency));
    return say`${[...rooms, ...hours, ...things].join(say`, and `)} would serve ${count(frees.trees)} of them: ${word(frees.route)}, sown ${day(frees.on)}.`;
  }
  return { day, placeLike, shortWords, freesWords };
}
