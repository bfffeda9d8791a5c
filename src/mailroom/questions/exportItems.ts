// Tasks and appointments as a calendar, with the messages themselves where that is wanted.
import { writeCalendar } from '../../core/agenda/writeCalendar';
import { encodeBase64 } from '../../core/mail/transfer';
import type { Readable } from '../reading/reader';
import { messagesHere, type DatedSource } from './dated';

/** So many bytes of messages go along at most. */
const mostEnclosed = 50_000_000;

/** Some tasks and appointments, or all (null), as RFC 5545 has them. */
export async function exportItems(
  mailbox: DatedSource & Readable,
  uids: readonly string[] | null,
  enclosed: boolean,
): Promise<string> {
  const { items } = mailbox;
  const list = uids === null ? [...items.all.values()] : uids.flatMap((uid) => items.all.get(uid) ?? []);
  if (!enclosed) return writeCalendar(list);
  await mailbox.ready();
  const along = new Map<string, string>();
  let size = 0;
  for (const [messageId, { id }] of messagesHere(mailbox, new Set(list.flatMap(({ messages }) => messages)))) {
    const raw = await mailbox.reader.one(id, 'raw', undefined);
    if (!raw || size + raw.length > mostEnclosed) continue;
    size += raw.length;
    along.set(messageId, encodeBase64(raw, '', 0));
  }
  return writeCalendar(list, null, along);
}
