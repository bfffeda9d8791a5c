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
}

/** What it answers: an envelope for each message, in their order, and the messages back. */
export interface ParseAnswer extends ReadBatch {
  job: number;
  messages: Uint8Array<ArrayBuffer>[];
}

const scope = globalThis as unknown as {
  onmessage: ((event: MessageEvent<ParseJob>) => void) | null;
  postMessage(answer: ParseAnswer, transfer: Transferable[]): void;
};

scope.onmessage = async ({ data: { job, form, messages, judged } }) => {
  const read = await readBatch(messages, form, judged);
  const buffers = new Set(
    [...messages, ...read.features, read.text.tokens, read.text.ends].map(({ buffer }) => buffer),
  );
  scope.postMessage({ job, ...read, messages }, [...buffers]);
};
