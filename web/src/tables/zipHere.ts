import { unzipSync, type Unzipped } from 'fflate/browser';

/*
 * The reader of spreadsheets unpacks larger files in a worker that it writes itself, which a page of Kauri's does not
 * allow. It already runs in a worker of Kauri's: here the same is done where it stands.
 */
export * from 'fflate/browser';

export function unzip(data: Uint8Array, done: (error: Error | null, files: Unzipped) => void): () => void {
  let files: Unzipped = {};
  let fault: Error | null = null;
  try {
    files = unzipSync(data);
  } catch (error) {
    fault = error as Error;
  }
  done(fault, files);
  return () => undefined;
}
