import { decimals } from '@kauri/core';
import { count } from '../../words/numbers';

/** Hours of work: to a tenth while they are few. */
export const hoursWritten = (hours: number): string =>
  hours < 10 ? decimals(String(Math.round(hours * 10) / 10)) : count(Math.round(hours));
