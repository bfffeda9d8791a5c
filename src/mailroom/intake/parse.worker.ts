// A parse worker: raw messages in, envelopes out. There are as many of them as there are cores to spare.
import type { Form } from '../../core/mail/mbox';
import { readBatch, type ReadBatch } from './readMessages';

/** What a parse worker is sent. */
export interface ParseJob {
  job: number;
  form: Form;
  messages: Uint8Array<ArrayBuffer>[];
  /** Whether the junk filter will judge them. */
  judged: boolean;
  /** Messages at which a worker did not come back: they are kept without being taken apart. */
  given: ReadonlySet<number>;
}

/** What it says on its way: at which message of a job it is. */
export interface ParseStep {
  job: number;
  at: number;
}

/** What it answers: an envelope for each message, in their order. */
export interface ParseAnswer extends ReadBatch {
  job: number;
}

const scope = globalThis as unknown as {
  onmessage: ((event: MessageEvent<ParseJob>) => void) | null;
  postMessage(answer: ParseAnswer | ParseStep, transfer?: Transferable[]): void;
};

scope.onmessage = async ({ data: { job, form, messages, judged, given } }) => {
  const read = await readBatch(messages, form, judged, { given, at: (at) => scope.postMessage({ job, at }) });
  const buffers = new Set([...read.features, read.text.tokens, read.text.ends].map(({ buffer }) => buffer));
  scope.postMessage({ job, ...read }, [...buffers]);
};
