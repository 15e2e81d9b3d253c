import { createHash, randomBytes } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { dayOf, isoOf, stepsOf, say, inWords, inSentence } from '@kauri/core';
import { and, eq } from 'drizzle-orm';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { note } from '../../db/journal';
import { calendarToken, membership, nursery } from '../../db/schema/index';
import { inNurseryByCalendar, inNursery, type Tx } from '../../db/tenant';
import type { Server, Work } from '../../http/context';
import { Refusal } from '../../http/problems';
import { readValue } from '../../nursery/values';
import { spokenIn } from '../../speech';
import { catalogueOf } from '../yard/catalogue';
import { serverToday, type ServerToday } from './serverToday';

const MOST_WAIT_MS = 10_000;
const ASK_AGAIN_MS = 200;

const digest = (token: string) => createHash('sha256').update(token).digest('base64url');

/** A new private address for one person's calendar; whatever was given out before ends. @returns its path, said once */
export async function makeCalendar(work: Work): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await dropCalendar(work);
  await work.tx
    .insert(calendarToken)
    .values({ nurseryId: work.nurseryId, personId: work.personId, tokenHash: digest(token) });
  await note(work, 'make a calendar address', work.personId, null, null);
  return `/api/calendar/${token}.ics`;
}

export async function dropCalendar({ tx, nurseryId, personId }: Work): Promise<void> {
  await tx
    .delete(calendarToken)
    .where(and(eq(calendarToken.nurseryId, nurseryId), eq(calendarToken.personId, personId)));
}

/**
 * The acts of a nursery as an iCalendar feed (RFC 5545): one event a day and act, on its last day, or today where it has
 * none or that is past; and the weeks of sowings and moves that are planned. Whoever left the nursery, or was given a new address, is told nothing.
 */
export async function calendarFeed(server: Server, file: string): Promise<string> {
  const tokenHash = digest(file.replace(/\.ics$/, ''));
  const whose = await inNurseryByCalendar(server.pool, tokenHash);
  if (whose === null) throw noCalendar();
  const read = () =>
    inNursery(server.pool, whose, async (tx) => {
      const [home] = await tx.select().from(nursery).where(eq(nursery.id, whose.nurseryId));
      const [member] = await tx
        .select({ role: membership.role })
        .from(membership)
        .where(and(eq(membership.nurseryId, whose.nurseryId), eq(membership.personId, whose.personId)));
      if (!member) throw noCalendar();
      const { today } = await serverToday(tx, whose.nurseryId, server.today(home.timeZone));
      const planned = await spokenIn(home.language, () => plannedAhead(tx, whose.nurseryId, today));
      return { name: home.name, language: home.language, today, planned };
    });
  // A calendar asks a few times a day: it waits a little for the newest, between transactions.
  let { name, language, today, planned } = await read();
  for (const until = Date.now() + MOST_WAIT_MS; today.working && Date.now() < until;) {
    server.askToday(whose.nurseryId);
    await pause(ASK_AGAIN_MS);
    ({ name, language, today, planned } = await read());
  }
  return spokenIn(language, () => inCalendar(name, today, planned));
}

/** A step of the plan in the calendar: a week, from its Monday. */
interface PlannedWeek {
  id: string;
  from: string;
  summary: string;
  description: string;
}

const verbs = inWords({ sow: 'Sow', stick: 'Stick', move: 'Move on' } as const);

/** Sowings and moves that are planned for weeks to come; those that Today asks for already are in its acts. */
async function plannedAhead(tx: Tx, nurseryId: string, { on, acts }: ServerToday): Promise<PlannedWeek[]> {
  const { value } = await readValue({ tx, nurseryId }, 'plan');
  if (!value.sowings.length) return [];
  const { species: kinds, places } = await catalogueOf(tx, nurseryId);
  const species = new Map(kinds.map(({ id, common }) => [id, inSentence(common)]));
  const placeNames = new Map(places.map(({ id, place }) => [id, place.name]));
  const asked = new Set(acts.flatMap(({ rule, subjectId }) => (rule === 'sow-planned' ? [subjectId] : [])));
  return stepsOf(value.sowings)
    .filter((step) => step.on > dayOf(on) && !(step.stage === 0 && asked.has(step.sowing.id)))
    .map(({ sowing, stage, on: from, plants, placeId }) => {
      const verb = verbs[stage > 0 ? 'move' : sowing.start === 'cuttings' ? 'stick' : 'sow'];
      const name = species.get(sowing.speciesId) ?? say`a species no longer in the list`;
      return {
        id: `${sowing.id}.${stage}@kauri`,
        from: isoOf(from),
        summary: `${verb} ${name}, planned`,
        description: `${sowing.route}: ${plants} plants, ${placeNames.get(placeId) ?? say`a place no longer in the yard`}.`,
      };
    });
}

function inCalendar(nurseryName: string, { on, acts }: ServerToday, planned: readonly PlannedWeek[]): string {
  const calendar = ical({
    name: say`${nurseryName}: to do`,
    prodId: { company: 'Kauri', product: say`Today`, language: 'EN' },
    method: ICalCalendarMethod.PUBLISH,
    ttl: 6 * 3600,
  });
  for (const act of acts) {
    if (act.when === 'watch') continue;
    const day = act.by === null || act.by < on ? on : act.by;
    calendar.createEvent({
      id: `${act.rule}.${act.subjectId ?? 'lots'}@kauri`,
      start: dateOf(day),
      end: dateOf(isoOf(dayOf(day) + 1)),
      allDay: true,
      stamp: dateOf(on),
      summary: act.title,
      description: act.reason,
      categories: [{ name: act.about }],
    });
  }
  for (const { id, from, summary, description } of planned)
    calendar.createEvent({
      id,
      start: dateOf(from),
      end: dateOf(isoOf(dayOf(from) + 7)),
      allDay: true,
      stamp: dateOf(on),
      summary,
      description,
    });
  return calendar.toString();
}

/** Midnight UTC of a plain date: an all-day event is written from its UTC parts. */
function dateOf(iso: string): Date {
  return new Date(`${iso}T00:00:00Z`);
}

function noCalendar(): Refusal {
  return new Refusal(
    404,
    'no-such-calendar',
    say`There is no such calendar. Its address may have been renewed.`,
  );
}
