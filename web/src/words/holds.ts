import { inWords } from '@kauri/core';
import type { HoldCause, HoldCover, HoldNote } from '@kauri/core';

export const holdCauseWords: Record<HoldCause, string> = inWords({
  'severed layer': 'severed layers',
  'dug in summer': 'dug in leaf',
  'pricked out': 'pricked out soft',
  'soft cuttings': 'soft cuttings',
  'bare-rooted in leaf': 'bare-rooted in leaf',
});

export const holdCoverWords: Record<HoldCover, string> = inWords({
  bag: 'in a bag',
  dome: 'under a dome',
  tent: 'in a tent',
});

export const holdNoteWords: Record<HoldNote, string> = inWords({
  flush: 'new leaves',
  opened: 'opened a little more',
  light: 'moved to more light',
  wilted: 'wilted: back a step',
});
