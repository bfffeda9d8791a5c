// What the core uses of every host program beyond the language. The core is type-checked without DOM and Node types, so
// it is declared here, like the Encoding Standard's in encoding.d.ts.

/** Of the URL Standard: for names of hosts (UTS #46). */
declare class URL {
  constructor(url: string);
  readonly hostname: string;
}

/** How many frames an error bears: V8's own. Where a host has no such limit, setting it changes nothing. */
interface ErrorConstructor {
  stackTraceLimit: number;
}
