/** An id made from another, the same for the same number: time and version stay, the last digits count. */
export function childOf(id: string, n: number): string {
  const last = (parseInt(id.slice(-8), 16) ^ (n * 0x9e3779b1)) >>> 0;
  return id.slice(0, -8) + last.toString(16).padStart(8, '0');
}
