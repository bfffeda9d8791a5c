// Export: messages as they came in, byte for byte, to .mbox or .eml.
import { downloadZip } from 'client-zip';
import { toEml, toMbox } from '../../core/mail/mbox';
import { placeName } from '../../core/mail/place';
import type { Selection } from '../border/views';
import type { ExportResult } from '../border/transfer';
import { selected } from '../search/selection';
import type { MailState, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Viewing, Searching } from '../search/searching';
import { fileName } from '../../core/text/fileName';

/** Parts are put into a Blob at this size: the browser may keep those on disk. */
const partBytes = 8 << 20;

function selectionName(mailbox: Pick<MailState, 'setup'>, selection: Selection): string {
  if (!('view' in selection)) return 'messages';
  const { view } = selection;
  if (view.kind === 'place') return placeName(view.place, mailbox.setup.folders);
  if (view.kind === 'label') return mailbox.setup.labels.find((l) => l.id === view.label)?.name ?? 'label';
  return view.kind;
}

/** Exports a selection in the order in which its messages came in. */
export async function exportMail(
  mailbox: MailState &
    Stored &
    Pick<Loading, 'ready'> &
    Correspondents &
    Viewing &
    Pick<Searching, 'finding' | 'redundancy'>,
  selection: Selection,
  format: 'mbox' | 'eml',
): Promise<ExportResult> {
  const ids = await selected(mailbox, selection);
  if (ids.length === 0) return { ok: false, error: 'There is nothing to export here.' };
  await mailbox.envelopes.ensure(ids, mailbox.columns.count);
  const lost: number[] = [];
  const stored = async (id: number) => {
    const message = await mailbox.raws.readable(id);
    if (!message) lost.push(id);
    return message;
  };
  const name = fileName(selectionName(mailbox, selection));
  if (format === 'eml' && ids.length === 1) {
    const message = await stored(ids[0]);
    if (!message) return { ok: false, error: 'The stored bytes of this message can’t be read any more.' };
    const blob = new Blob([own(toEml(message.bytes, message.form))], { type: 'message/rfc822' });
    const subject = fileName(mailbox.envelopes.get(ids[0]).subject || 'message');
    return { ok: true, blob, name: `${subject}.eml`, count: 1, lost: 0 };
  }
  const blob = format === 'mbox' ? await mbox(mailbox, ids, stored) : await emlZip(mailbox, ids, stored);
  const count = ids.length - lost.length;
  if (count === 0) return { ok: false, error: 'The stored bytes of these messages can’t be read any more.' };
  return { ok: true, blob, name: format === 'mbox' ? `${name}.mbox` : `${name}.zip`, count, lost: lost.length };
}

type Read = (id: number) => Promise<{ bytes: Uint8Array; form: 'mbox' | 'eml' } | null>;

const own = (bytes: Uint8Array): Uint8Array<ArrayBuffer> => Uint8Array.from(bytes);

async function mbox(
  mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'>,
  ids: Int32Array,
  read: Read,
): Promise<Blob> {
  const blobs: Blob[] = [];
  let parts: Uint8Array<ArrayBuffer>[] = [];
  let size = 0;
  for (const [i, id] of ids.entries()) {
    const message = await read(id);
    if (!message) continue;
    const sender = mailbox.envelopes.get(id).from.address;
    const bytes = toMbox(message.bytes, message.form, sender, mailbox.columns.date[id], i === ids.length - 1);
    parts.push(own(bytes));
    size += bytes.length;
    if (size >= partBytes) {
      blobs.push(new Blob(parts));
      parts = [];
      size = 0;
    }
  }
  return new Blob([...blobs, ...parts], { type: 'application/mbox' });
}

async function emlZip(
  mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'>,
  ids: Int32Array,
  read: Read,
): Promise<Blob> {
  const width = String(ids.length).length;
  async function* files() {
    for (const [i, id] of ids.entries()) {
      const message = await read(id);
      if (!message) continue;
      const subject = fileName(mailbox.envelopes.get(id).subject || 'no subject').slice(0, 80);
      yield {
        name: `${String(i + 1).padStart(width, '0')} ${subject}.eml`,
        input: own(toEml(message.bytes, message.form)),
        lastModified: new Date(mailbox.columns.date[id]),
      };
    }
  }
  return downloadZip(files()).blob();
}
