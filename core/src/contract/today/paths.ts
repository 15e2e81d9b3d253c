import type { Path } from '../route';

/** Today: method and path of every route. */
export const todayPaths = {
  todayBook: ['GET', '/nurseries/:nursery/today/book'],
  markAct: ['POST', '/nurseries/:nursery/today/marks'],
  markTogether: ['POST', '/nurseries/:nursery/today/marks/together'],
  undoMarks: ['POST', '/nurseries/:nursery/today/marks/undo'],
  undoMark: ['POST', '/nurseries/:nursery/today/marks/:mark/undo'],
  setTodayRules: ['PUT', '/nurseries/:nursery/today/rules'],
  makeCalendar: ['POST', '/nurseries/:nursery/today/calendar'],
  dropCalendar: ['POST', '/nurseries/:nursery/today/calendar/drop'],
  today: ['GET', '/nurseries/:nursery/today'],
  calendar: ['GET', '/calendar/:token'],
} as const satisfies Record<string, Path>;
