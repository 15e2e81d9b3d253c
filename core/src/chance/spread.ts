/** A positive quantity known roughly: median and standard deviation of its logarithm. */
export interface Spread {
  median: number;
  sdLog: number;
}
