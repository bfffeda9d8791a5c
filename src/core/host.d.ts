// The one class of the URL Standard that the core uses, for names of hosts (UTS #46); every host program has it. The core is
// type-checked without DOM and Node types, so it is declared here, like the Encoding Standard's in encoding.d.ts.
declare class URL {
  constructor(url: string);
  readonly hostname: string;
}
