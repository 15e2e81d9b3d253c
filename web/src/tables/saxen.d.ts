/** The few parts of the SAX parser that are used here. */
declare module 'saxen' {
  type Attributes = () => Record<string, string>;
  type Decode = (text: string) => string;
  export class Parser {
    on(event: 'openTag', take: (name: string, attributes: Attributes, decode: Decode) => void): this;
    on(event: 'closeTag', take: (name: string) => void): this;
    on(event: 'text', take: (text: string, decode: Decode) => void): this;
    on(event: 'error', take: (error: Error) => void): this;
    parse(xml: string): void;
  }
}
