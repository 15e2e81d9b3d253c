import { expect, it } from 'vitest';
import { byNature } from './nature';

it('orders names as people count', () => {
  expect(['Bed 10', 'Bed 2', 'bed 1'].sort(byNature)).toEqual(['bed 1', 'Bed 2', 'Bed 10']);
});
