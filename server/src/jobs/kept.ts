/*
 * JSON knows no infinity and writes null for it, which reads as "no day" instead of "beyond the forecast". What is kept says
 * it by a mark of its own, which no text that somebody typed can be taken for.
 */
interface Mark {
  '∞': 1 | -1;
}

/** A value as JSON text that gives back every figure, those without end among them. */
export function toKept(value: unknown): string {
  return JSON.stringify(value, (_, part: unknown) =>
    part === Infinity || part === -Infinity ? ({ '∞': part > 0 ? 1 : -1 } satisfies Mark) : part,
  );
}

/** The value that {@link toKept} wrote. */
export function fromKept<T>(text: string): T {
  return JSON.parse(text, (_, part: unknown) =>
    typeof part === 'object' && part !== null && '∞' in part ? (part as Mark)['∞'] * Infinity : part,
  ) as T;
}
