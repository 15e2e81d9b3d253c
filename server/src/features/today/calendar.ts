import { createHash, randomBytes } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { dayOf, isoOf } from '@kauri/core';
import { and, eq } from 'drizzle-orm';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { note } from '../../db/journal';
import { calendarToken, membership, nursery } from '../../db/schema/index';
import { inNurseryByCalendar, inNursery } from '../../db/tenant';
import type { Server, Work } from '../../http/context';
import { Refusal } from '../../http/problems';
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
 * none or that is past. Whoever left the nursery, or was given a new address, is told nothing.
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
      return { name: home.name, today };
    });
  // A calendar asks a few times a day: it waits a little for the newest, between transactions.
  let { name, today } = await read();
  for (const until = Date.now() + MOST_WAIT_MS; today.working && Date.now() < until;) {
    server.askToday(whose.nurseryId);
    await pause(ASK_AGAIN_MS);
    ({ name, today } = await read());
  }
  return inCalendar(name, today);
}

function inCalendar(nurseryName: string, { on, acts }: ServerToday): string {
  const calendar = ical({
    name: `${nurseryName}: to do`,
    prodId: { company: 'Kauri', product: 'Today', language: 'EN' },
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
    'There is no such calendar. Its address may have been renewed.',
  );
}
