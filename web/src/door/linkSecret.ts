/** The secret of a link is behind its hash, which browsers send to nobody. */
export const linkSecret = (): string => location.hash.slice(1);

/** A secret for a link: 32 random bytes. It is made here, so that the server knows no more of it than a digest. */
export function newSecret(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(32));
  return btoa(String.fromCharCode(...bytes)).replace(/[+/=]/g, (c) => ({ '+': '-', '/': '_' })[c] ?? '');
}
