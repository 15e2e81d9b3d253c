/**
 * The lines of a text that comes in pieces, each as soon as it is whole. A last line without its end is given too.
 * @param parts bytes as they come, in UTF-8; a letter may be cut anywhere
 */
export async function* linesOf(parts: AsyncIterable<Uint8Array>): AsyncGenerator<string> {
  const decoder = new TextDecoder();
  let rest = '';
  for await (const part of parts) {
    rest += decoder.decode(part, { stream: true });
    const lines = rest.split('\n');
    rest = lines.pop()!;
    yield* lines;
  }
  rest += decoder.decode();
  if (rest) yield rest;
}
