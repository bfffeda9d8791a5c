// The core as a library: what a script needs, and no more.
export { type Address } from './mail/address';
export { parseEnvelope, type Envelope } from './mail/envelope';
export { MboxSplitter, messageOf, sniffMail, toEml, toMbox, type Form } from './mail/mbox';
export { writeMessage, type MessageToWrite } from './mail/writing';
export { Line, type Decision, type TraceLine } from './line/decide';
export { dryRun, type Candidate, type DryRunChange } from './line/dryRun';
export { emptySetup, parseSetup, type Setup } from './line/setup';
