import type { EpochDay } from '../calendar/day';
import type { LayerOutlook } from '../propagation/airLayer';
import type { EmergenceOutlook } from '../sowing/emergenceOutlook';
import { whenFor, type When } from '../calendar/when';
import type { ViabilityOutlook } from '../seed/seedViability';
import type { TreatmentClock } from '../seed/treatmentClock';

/** Something the Seed station asks for. */
export interface SeedAct {
  part: 'store' | 'clock' | 'layers' | 'up';
  subjectId: string;
  rule:
    | 'radicles-out'
    | 'sow-batch'
    | 'check-batch'
    | 'retest'
    | 'likely-dead'
    | 'sever'
    | 'look-layer'
    | 'keep-on'
    | 'late-up';
  when: When;
  by: EpochDay | null;
  figures: Record<string, number>;
}

type Finding = Omit<SeedAct, 'subjectId' | 'part'>;

/** Days in which seed with its radicle out must be sown. */
export const RADICLE_DAYS = 4;
/** Chance of a radicle within the week from which a batch is worth a look. */
const WORTH_A_LOOK = 0.01;
/** Layers are looked at this often once roots may show. */
const LOOK_DAYS = 28;

/** What a batch under treatment asks for: radicles first, then sowing, then a look. */
export function batchActs(subjectId: string, clock: TreatmentClock): SeedAct[] {
  const today = clock.asOf;
  const find = (): Finding | null => {
    if (clock.radiclesSeenOn !== null)
      return {
        rule: 'radicles-out',
        when: 'now',
        by: clock.radiclesSeenOn + RADICLE_DAYS,
        figures: { since: clock.radiclesSeenOn },
      };
    if (clock.ready.p50 <= today + 28)
      return {
        rule: 'sow-batch',
        when: whenFor(clock.ready.p50, today),
        by: Math.round(clock.ready.p50),
        figures: { chance: clock.weeks[0].chance },
      };
    const when = whenFor(clock.nextCheck, today);
    // Nothing is looked for that is hardly there.
    return when === 'watch' || clock.weeks[0].chance < WORTH_A_LOOK
      ? null
      : {
          rule: 'check-batch',
          when: when === 'now' ? 'week' : when,
          by: clock.nextCheck,
          figures: { chance: clock.weeks[0].chance },
        };
  };
  const finding = find();
  return finding ? [{ part: 'clock', subjectId, ...finding }] : [];
}

/** What a seed lot in store asks for; nothing once it is empty. */
export function storeActs(
  subjectId: string,
  { now, deadOn, retestOn, tested }: ViabilityOutlook,
  seeds: number,
  today: EpochDay,
): SeedAct[] {
  if (seeds < 1) return [];
  if (deadOn <= today)
    return [
      {
        part: 'store',
        subjectId,
        rule: 'likely-dead',
        when: 'weeks',
        by: null,
        figures: { alive: now.mean, since: deadOn },
      },
    ];
  const when = whenFor(retestOn, today);
  if (when === 'watch') return [];
  // A test is never more pressing than this week.
  return [
    {
      part: 'store',
      subjectId,
      rule: 'retest',
      // A bag that was never tested is best tested before it is counted on; nothing is late about it.
      when: !tested ? 'weeks' : when === 'now' ? 'week' : when,
      by: retestOn,
      figures: { alive: now.mean, low: now.p10, high: now.p90, tested: tested ? 1 : 0 },
    },
  ];
}

/** What a layer on its branch asks for. */
export function layerActs(
  subjectId: string,
  outlook: LayerOutlook,
  lastLook: EpochDay,
  rootsSeen: 'none' | 'few' | 'many',
  today: EpochDay,
): SeedAct[] {
  const { severBy, rooted, chanceInTime, window } = outlook;
  // Roots seen are believed; else it is severed only where they are there nine times in ten.
  if (today > severBy || (window.keptOn && rootsSeen !== 'many')) {
    const figures = { severBy, chance: chanceInTime, from: window.from, until: window.by };
    // Wrapped before frost: that is told in the weeks before it.
    const when = today <= outlook.firstFrost.p50 && outlook.firstFrost.p10 - today <= 42 ? 'weeks' : 'watch';
    return [{ part: 'layers', subjectId, rule: 'keep-on', when, by: null, figures }];
  }
  if (rootsSeen === 'many' || (severBy - today <= 28 && rootsSeen === 'few')) {
    const when = whenFor(severBy, today);
    return [
      {
        part: 'layers',
        subjectId,
        rule: 'sever',
        when: when === 'watch' ? 'weeks' : when,
        by: severBy,
        figures: { chance: chanceInTime },
      },
    ];
  }
  const look = Math.max(lastLook + LOOK_DAYS, Math.min(rooted.p10, severBy - LOOK_DAYS));
  const when = whenFor(look, today);
  return when === 'watch'
    ? []
    : [
        {
          part: 'layers',
          subjectId,
          rule: 'look-layer',
          when: when === 'now' ? 'week' : when,
          by: Math.round(look),
          figures: { chance: chanceInTime, severBy },
        },
      ];
}

/** A sown lot that lags behind what ordinary seed of its kind would show by now. */
export function emergenceActs(
  lotId: string,
  { late, upNow, expectedNow, final }: Pick<EmergenceOutlook, 'late' | 'upNow' | 'expectedNow' | 'final'>,
): SeedAct[] {
  if (!late) return [];
  const figures = { up: upNow, expected: expectedNow, final: final.p50 };
  return [{ part: 'up', subjectId: lotId, rule: 'late-up', when: 'week', by: null, figures }];
}
