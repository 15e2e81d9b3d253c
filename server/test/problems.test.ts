import { Unfit } from '@kauri/core';
import { describe, expect, it } from 'vitest';
import { Refusal, toProblem } from '../src/http/problems';

describe('what an error means to whoever asked', () => {
  it('what cannot be is said as it is, with its field', () => {
    const problem = toProblem(new Unfit('A feed is rated in months above 0.', 'ratedMonths'), 'r');
    expect(problem).toMatchObject({
      status: 422,
      detail: 'A feed is rated in months above 0.',
      fields: [{ path: 'ratedMonths' }],
    });
  });
  it.each([new RangeError('Invalid time value'), new TypeError('x is not a function'), new Error('odd')])(
    'any other is a fault of Kauri’s, and shows nothing of its inside: %s',
    (error) => {
      const problem = toProblem(error, 'request-1');
      expect(problem).toMatchObject({ status: 500, requestId: 'request-1' });
      expect(JSON.stringify(problem)).not.toContain(error.message);
    },
  );
  it('a database at its limit is not one that does not answer', () => {
    expect(toProblem(new Error('timeout exceeded when trying to connect'), 'r').type).toBe('/problems/busy');
    const down = Object.assign(new Error('connect'), { code: 'ECONNREFUSED' });
    expect(toProblem(down, 'r').type).toBe('/problems/database-down');
  });
  it.each(['53100', 'ENOSPC'])('a full disk is named as such, whoever found it: %s', (code) => {
    const problem = toProblem(Object.assign(new Error('could not extend file'), { code }), 'r');
    expect(problem).toMatchObject({ status: 507, type: '/problems/disk-full' });
  });
  it('a file that is not there is not a fault', () => {
    expect(toProblem(Object.assign(new Error('Not Found'), { status: 404 }), 'r').status).toBe(404);
    expect(toProblem(new Refusal(409, 'stale-edit', 'Changed.'), 'r').status).toBe(409);
  });
});
