/**
 * What cannot be: a figure, a date, a record that no grower could mean or that does not fit the rest. Its message is one
 * sentence for whoever typed it. Any other error is a fault of Kauri's own.
 *
 * @example
 * throw new Unfit('A feed is rated in months above 0.', 'ratedMonths');
 */
export class Unfit extends Error {
  override readonly name = 'Unfit';
  constructor(
    message: string,
    /** The field the sentence is about, as a path into what was sent. */
    readonly field?: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}
