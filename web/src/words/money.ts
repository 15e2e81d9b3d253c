import { speech } from '@kauri/core';

/** A sum of money as it is written: to the hundredth, thousands apart, the sign before it. */
export function money(amount: number, currency: string): string {
  if (!Number.isFinite(amount)) return '–';
  const digits = Math.abs(amount) >= 1000 ? 0 : 2;
  const [whole, part] = Math.abs(amount).toFixed(digits).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+(?!\d))/g, '\u202f');
  return `${amount < 0 ? '−' : ''}${currency}\u00a0${grouped}${part ? `${speech().decimal}${part}` : ''}`;
}
