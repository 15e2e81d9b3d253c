import { inWords } from '@kauri/core';

/** The orders a table may write its dates in. */
export const dateOrders = inWords(
  [
    { value: 'iso', words: 'Year first, 2026-11-24' },
    { value: 'day-first', words: 'Day first, 24/11/2026' },
    { value: 'month-first', words: 'Month first, 11/24/2026' },
  ] as const,
  'words',
);
