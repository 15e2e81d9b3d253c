/**
 * How a figure came about. A function that answers a grower's question returns `{ value, working }`;
 * the screen opens `working` under *Show working*. An `expression` holds the numbers put in, written
 * with + − × ÷ ^ and the functions ln, exp, sqrt, min, max, floor, so that anyone can do it again by
 * hand (and a test does).
 */
export interface Worked<T> {
  value: T;
  working: Step[];
}

/** Where a number put into a step comes from. */
export type Origin = 'record' | 'starting' | 'choice' | 'standard';

export interface Input {
  name: string;
  value: number | string;
  unit?: string;
  origin: Origin;
}

export interface Step {
  /** What is computed, in a grower's words. */
  what: string;
  /** Which of a forecast’s questions it answers, where a view shows only those. */
  part?: 'lifting';
  /** The sum with its numbers, or absent where the step is a simulation rather than a sum. */
  expression?: string;
  /** One sentence for steps that are not a sum. */
  how?: string;
  result: number | string;
  unit?: string;
  inputs?: Input[];
  source?: string;
}

/** A number as it is written into an expression: seven significant figures, no trailing noise. */
export function put(value: number): string {
  if (!Number.isFinite(value)) return String(value);
  const text = String(Number(value.toPrecision(7)));
  return value < 0 ? `(${text.replace('-', '−')})` : text;
}

/** Template tag that puts numbers into an expression: sum`${a} × ${b}`. */
export function sum(strings: TemplateStringsArray, ...values: number[]): string {
  return strings.reduce((text, part, i) => text + part + (i < values.length ? put(values[i]) : ''), '');
}

/**
 * Does an expression's arithmetic again.
 * @throws Error when the text is not arithmetic.
 */
export function recompute(expression: string): number {
  const tokens = expression
    .replace(/−/g, '-')
    .replace(/×/g, '*')
    .replace(/÷/g, '/')
    .match(/\d+(?:\.\d+)?(?:e[-+]?\d+)?|[a-z]+|[-+*/^(),]|\S/gi);
  if (!tokens) throw new Error('An empty expression has no value.');
  let at = 0;
  const functions: Record<string, (...xs: number[]) => number> = {
    ln: Math.log,
    exp: Math.exp,
    sqrt: Math.sqrt,
    min: Math.min,
    max: Math.max,
    floor: Math.floor,
  };
  const expect = (token: string) => {
    if (tokens[at++] !== token) throw new Error(`Expected ${token} in “${expression}”.`);
  };
  function sumOf(): number {
    let value = product();
    while (tokens![at] === '+' || tokens![at] === '-')
      value += tokens![at++] === '+' ? product() : -product();
    return value;
  }
  function product(): number {
    let value = power();
    while (tokens![at] === '*' || tokens![at] === '/')
      value = tokens![at++] === '*' ? value * power() : value / power();
    return value;
  }
  function power(): number {
    const base = atom();
    if (tokens![at] !== '^') return base;
    at++;
    return base ** power();
  }
  function atom(): number {
    const token = tokens![at++];
    if (token === '-') return -power();
    if (token === '(') {
      const value = sumOf();
      expect(')');
      return value;
    }
    if (token in functions) {
      expect('(');
      const args = [sumOf()];
      while (tokens![at] === ',') {
        at++;
        args.push(sumOf());
      }
      expect(')');
      return functions[token](...args);
    }
    const value = Number(token);
    if (Number.isNaN(value)) throw new Error(`“${token}” is not a number in “${expression}”.`);
    return value;
  }
  const value = sumOf();
  if (at !== tokens.length) throw new Error(`“${tokens[at]}” does not belong in “${expression}”.`);
  return value;
}
