/** The answer of a write that is kept on the device: there is none yet. */
export const KEPT = 'kept';
