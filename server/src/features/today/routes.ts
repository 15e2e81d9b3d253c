import type { todayRoutes } from '@kauri/core/contract';
import { ReadyJson, type HandlersOf } from '../../http/context';
import { workOf } from '../../nursery/work';
import { keepValue } from '../../nursery/values';
import { markActs, todayBook, undoMarks } from './book';
import { calendarFeed, dropCalendar, makeCalendar } from './calendar';
import { serverToday } from './serverToday';

export const todayHandlers: HandlersOf<typeof todayRoutes> = {
  async todayBook(call) {
    const work = await workOf(call);
    return todayBook(work, work.today);
  },
  async markAct(call) {
    const work = await workOf(call);
    await markActs(work, [call.body]);
    return todayBook(work, work.today);
  },
  async markTogether(call) {
    const work = await workOf(call);
    await markActs(work, call.body.marks);
    return todayBook(work, work.today);
  },
  async undoMarks(call) {
    const work = await workOf(call);
    await undoMarks(work, call.body.marks);
    return todayBook(work, work.today);
  },
  async undoMark(call) {
    const work = await workOf(call);
    await undoMarks(work, [call.params.mark]);
    return todayBook(work, work.today);
  },
  async setTodayRules(call) {
    const work = await workOf(call);
    await keepValue(work, 'today', call.body.version, call.body.rules);
    return todayBook(work, work.today);
  },
  makeCalendar: async (call) => ({ path: await makeCalendar(await workOf(call)) }),
  async dropCalendar(call) {
    const work = await workOf(call);
    await dropCalendar(work);
    return todayBook(work, work.today);
  },
  async today(call) {
    const on = (await workOf(call)).today;
    const { today, text } = await serverToday(call.tx, call.nurseryId, on, call.query.each);
    if (today.working) call.server.askToday(call.nurseryId);
    return new ReadyJson(text) as unknown as typeof today;
  },
  calendar: ({ server, params }) => calendarFeed(server, params.token),
};
