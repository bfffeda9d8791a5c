// A parse worker: raw messages in, envelopes out. There are as many of them as there are cores to spare.
import { parseEnvelope, type Envelope } from '../core/mail/envelope';
import { messageOf, type Form } from '../core/mail/mbox';

/** What a parse worker is sent. */
export interface ParseJob {
  job: number;
  form: Form;
  messages: Uint8Array<ArrayBuffer>[];
}

/** What it answers: an envelope for each message, in their order, and the messages back. */
export interface ParseAnswer {
  job: number;
  envelopes: Envelope[];
  messages: Uint8Array<ArrayBuffer>[];
}

const scope = globalThis as unknown as {
  onmessage: ((event: MessageEvent<ParseJob>) => void) | null;
  postMessage(answer: ParseAnswer, transfer: Transferable[]): void;
};

scope.onmessage = ({ data: { job, form, messages } }) => {
  const envelopes = messages.map((stored) => parseEnvelope(messageOf(stored, form)));
  scope.postMessage({ job, envelopes, messages }, [...new Set(messages.map((m) => m.buffer))]);
};
