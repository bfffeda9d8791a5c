// Deleted for good is gone: from the raw messages, the envelopes, the text index, and what the Logbook says. A record of
// the journal says that they were deleted; how far that was carried out stands in meta, so that a crash in between is
// made good at the next start.
import { short } from '../../core/text/sentences';
import type { JournalHead } from '../state/journalHead';
import type { Loading, Logged, MailState } from '../state/mailState';
import { expunged } from '../state/internedTables';
import { rewriteJournal } from '../storage/journal';
import type { Readable } from '../reading/reader';
import type { Keeping, Stored } from '../storage/stored';
import type { Indexed } from '../search/indexed';
import type { Searching } from '../search/searching';

/** What is said in the place of a subject. */
const instead = 'a message that was deleted for good';

/** So many deleted messages are named in the Logbook at most. */
const mostNamed = 2_000;

/** Has the Logbook name them as long as the mailbox is open: what is in storage of them goes. */
function rememberNames(
  { envelopes, columns, deletedLately }: Pick<MailState, 'columns'> & Stored & Pick<Logged, 'deletedLately'>,
  ids: readonly number[],
): void {
  for (const id of ids) {
    const { from, subject } = envelopes.get(id);
    const sender = from ? from.name || from.address : '';
    if (sender || subject) deletedLately.set(id, { from: sender, subject, date: columns.date[id] });
  }
  for (const id of deletedLately.keys()) {
    if (deletedLately.size <= mostNamed) break;
    deletedLately.delete(id);
  }
}

/** Entries that can name a message: those that touched one alone, and those that undid one of them. */
const naming = (heads: readonly JournalHead[], erased: ReadonlySet<number>): JournalHead[] =>
  heads.filter(({ ids, says }) => ids?.length === 1 && erased.has(ids[0]) && says.includes('“'));

/** Takes the subject of the message that it names out of an entry of the Logbook. */
async function forgetSubject(mailbox: Pick<Keeping, 'records'> & Stored, head: JournalHead): Promise<void> {
  const subject = mailbox.envelopes.get(head.ids?.[0] ?? -1).subject;
  if (!subject) return;
  const said = [`“${short(subject)}”`, `“${subject.slice(0, 200)}”`];
  const without = said.reduce((text, one) => text.replaceAll(one, instead), head.says);
  if (without === head.says) return;
  await rewriteJournal(mailbox.records, head.seq, without);
  head.says = without;
}

/** Whether something was deleted for good that may still stand anywhere. */
export const hasToErase = ({ heads, erasedTo }: Pick<Logged, 'heads'> & { readonly erasedTo: number }): boolean =>
  heads.findLast((head) => head.kinds.includes('deleted') && head.seq > erasedTo) !== undefined;

/** Erases what commands deleted for good and what still stands anywhere. Only within `exclusive`. */
export async function eraseDeleted(
  mailbox: Pick<MailState, 'columns'> &
    Stored &
    Keeping &
    Indexed &
    Readable &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads' | 'deletedLately'> &
    Pick<Searching, 'finding'> & { readonly seq: number; erasedTo: number },
): Promise<void> {
  await mailbox.journalReady();
  const { heads, columns, erasedTo } = mailbox;
  const due = heads.filter((head) => head.seq > erasedTo && head.kinds.includes('deleted'));
  const ids = [...new Set(due.flatMap(({ ids }) => [...(ids ?? [])]))].filter((id) => columns.place[id] === expunged);
  if (ids.length) {
    await mailbox.envelopes.ensure(ids, columns.count);
    rememberNames(mailbox, ids);
    for (const head of naming(heads, new Set(ids))) await forgetSubject(mailbox, head);
    await mailbox.raws.drop(ids);
    await mailbox.text.erase(ids);
    await mailbox.envelopes.erase(ids, columns.count);
    mailbox.finding.forget();
    mailbox.reader.forget();
  }
  if (mailbox.erasedTo === mailbox.seq) return;
  mailbox.erasedTo = mailbox.seq;
  if (ids.length) mailbox.storeSoon();
}
