// What a parse worker is to do with some messages, and how it is sent: their bytes go over as one piece, since many small
// ones take both sides longer than what is done with them.
import { joinBytes } from '../../core/data/bytes';
import type { Form } from '../../core/mail/mbox';
import type { StoredMessage } from '../../core/mail/message';
import type { Given, Kind } from './readings';

/** What is to be done with some messages. */
export type Work =
  /** All that is kept of new ones; `judged`: for the junk filter, too. */
  | { kind: 'all'; form: Form; messages: Uint8Array[]; judged: boolean }
  /** One thing of stored ones. */
  | { kind: Kind; stored: StoredMessage[]; given: Given<Kind> };

/** The same as it is sent: the bytes of all messages, and where each ends among them. */
export type SentWork = { bytes: Uint8Array<ArrayBuffer>; ends: Uint32Array<ArrayBuffer> } & (
  { kind: 'all'; form: Form; judged: boolean } | { kind: Kind; forms: Form[]; given: Given<Kind> }
);

/** The messages of some work. */
export const messagesOf = (work: Work): Uint8Array[] =>
  work.kind === 'all' ? work.messages : work.stored.map(({ bytes }) => bytes);

/** Some work as it is sent. The bytes are a copy: a worker that dies has with it what was sent. */
export function packed(work: Work): SentWork {
  const messages = messagesOf(work);
  let end = 0;
  const sent = { bytes: joinBytes(messages), ends: Uint32Array.from(messages, ({ length }) => (end += length)) };
  if (work.kind === 'all') return { ...sent, kind: work.kind, form: work.form, judged: work.judged };
  return { ...sent, kind: work.kind, forms: work.stored.map(({ form }) => form), given: work.given };
}

/** The messages of what was sent, each a part of its bytes. */
export function sentMessages({ bytes, ends }: SentWork): Uint8Array[] {
  return Array.from(ends, (end, at) => bytes.subarray(at > 0 ? ends[at - 1] : 0, end));
}
