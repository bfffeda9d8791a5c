// What is still in memory of all messages, as mail: for when the browser has dropped what it stored.
import { toMbox } from '../../core/mail/mbox';
import { placeName } from '../../core/mail/place';
import { writeMessage } from '../../core/mail/writing';
import type { Envelope } from '../../core/mail/envelopeSchema';
import type { ExportResult } from '../border/transfer';
import { expunged } from '../state/internedTables';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';

const note = 'Only this was left of the message: its text and attachments were lost with the browser’s storage.';

/** A message of what its envelope says: who, when, what about, and the beginning of its text. */
function messageOf(envelope: Envelope, date: number, place: string): Uint8Array<ArrayBuffer> {
  const { messageId, from, to, cc, subject, references, preview, attachments } = envelope;
  const files = attachments.map(({ name }) => `Attachment: ${name}\r\n`).join('');
  return writeMessage({
    messageId,
    date,
    zone: 0,
    from,
    to,
    cc,
    subject,
    references,
    extra: [['Keywords', place]],
    body: {
      type: 'text/plain',
      charset: 'utf-8',
      bytes: new TextEncoder().encode(`${preview}\r\n\r\n${files}[${note}]\r\n`),
      encoding: 'quoted-printable',
    },
  });
}

/** Saves what is in memory, as an mbox: the envelopes and the first words of all messages that were read so far. */
export function exportMemory(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'setup'> & Pick<Stored, 'envelopes'>,
): ExportResult {
  const { columns, tables, setup, envelopes } = mailbox;
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let lost = 0;
  for (let id = 0; id < columns.count; id++) {
    if (columns.place[id] === expunged) continue;
    const envelope = envelopes.held(id);
    if (!envelope) {
      lost++;
      continue;
    }
    const place = placeName(tables.place(columns.place[id]), setup.folders);
    const bytes = messageOf(envelope, columns.date[id], place);
    parts.push(Uint8Array.from(toMbox(bytes, 'eml', envelope.from.address, columns.date[id], false)));
  }
  if (parts.length === 0) return { ok: false, error: 'Nothing of any message is in memory.' };
  return {
    ok: true,
    blob: new Blob(parts, { type: 'application/mbox' }),
    name: 'left-in-memory.mbox',
    count: parts.length,
    lost,
  };
}
