import { z } from 'zod';
import { Id } from '../basics';
import { inNursery, route } from '../route';
import { todayPaths as paths } from './paths';
import * as today from './schemas';

/** Today. */
export const todayRoutes = {
  todayBook: route(
    paths.todayBook,
    'visitor',
    'What was done about acts, rules muted and tuned, who may be asked',
    {
      params: inNursery,
      answer: today.TodayBook,
    },
  ),
  markAct: route(paths.markAct, 'crew', 'Mark an act done or skipped, or give it to someone', {
    params: inNursery,
    body: today.MarkAct,
    answer: today.TodayBook,
  }),
  markTogether: route(paths.markTogether, 'crew', 'Mark several acts at once, all or none', {
    params: inNursery,
    body: today.MarkTogether,
    answer: today.TodayBook,
  }),
  undoMarks: route(paths.undoMarks, 'crew', 'Take several marks back, all or none', {
    params: inNursery,
    body: z.object({ id: Id, marks: z.array(Id).min(1).max(500) }),
    answer: today.TodayBook,
  }),
  undoMark: route(paths.undoMark, 'crew', 'Take a mark back', {
    params: z.object({ nursery: Id, mark: Id }),
    body: z.object({ id: Id }),
    answer: today.TodayBook,
  }),
  setTodayRules: route(paths.setTodayRules, 'grower', 'Mute rules of Today, or have them earlier', {
    params: inNursery,
    body: today.EditedTodayRules,
    answer: today.TodayBook,
  }),
  makeCalendar: route(
    paths.makeCalendar,
    'visitor',
    'A private calendar address of one’s own; an older one ends',
    {
      params: inNursery,
      answer: today.CalendarAddress,
    },
  ),
  dropCalendar: route(paths.dropCalendar, 'visitor', 'End one’s calendar address', {
    params: inNursery,
    answer: today.TodayBook,
  }),
  today: route(paths.today, 'visitor', 'Today as it was last worked out, and when', {
    params: inNursery,
    query: today.TodayQuery,
    answer: today.ServerToday,
  }),
  calendar: route(
    paths.calendar,
    'anyone',
    'Acts as an iCalendar feed (RFC 5545); the address is the secret',
    {
      params: z.object({ token: z.string().regex(/^[A-Za-z0-9_-]{43}\.ics$/, 'There is no such calendar.') }),
      answerType: 'text/calendar',
      answer: z.string(),
    },
  ),
} as const;
