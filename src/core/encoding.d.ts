// The one thing from outside the language that the core uses: the Encoding Standard's two classes, which every
// host (browser, worker, Node.js) has. The core is type-checked without DOM and Node types, so they are declared here.
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(input?: Uint8Array): string;
  readonly encoding: string;
}
declare class TextEncoder {
  encodeInto(text: string, into: Uint8Array): { read: number; written: number };
  encode(input?: string): Uint8Array<ArrayBuffer>;
}
