/** The answer of a write that is kept on the device: there is none yet. */
export const KEPT = 'kept';

/** What became of a write: the server took it, and every list has it; or it is kept on the device. */
export type Outcome = 'taken' | typeof KEPT;
