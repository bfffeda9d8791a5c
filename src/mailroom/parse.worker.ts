// A parse worker: raw messages in, envelopes out. There are as many of them as there are cores to spare.
import type { Form } from '../core/mail/mbox';
import { readMessages, type KeptEnvelope } from './reading';

/** What a parse worker is sent. */
export interface ParseJob {
  job: number;
  form: Form;
  messages: Uint8Array<ArrayBuffer>[];
}

/** What it answers: an envelope for each message, in their order, and the messages back. */
export interface ParseAnswer {
  job: number;
  envelopes: KeptEnvelope[];
  messages: Uint8Array<ArrayBuffer>[];
}

const scope = globalThis as unknown as {
  onmessage: ((event: MessageEvent<ParseJob>) => void) | null;
  postMessage(answer: ParseAnswer, transfer: Transferable[]): void;
};

scope.onmessage = async ({ data: { job, form, messages } }) => {
  const envelopes = await readMessages(messages, form);
  scope.postMessage({ job, envelopes, messages }, [...new Set(messages.map((m) => m.buffer))]);
};
