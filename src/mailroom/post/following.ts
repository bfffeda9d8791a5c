// Mail that follows from a command: invitations, answers to them, what a stamp sends. It is written down as drafts before the
// command, and goes only once the command stands in the Logbook: after a crash either both are there, or neither.
import type { Draft, DraftFile } from '../../core/writing/draft';
import { freshDraft, mostBytes, recipientsOfDraft } from '../../core/writing/draft';
import { Refused } from '../commands/once';
import type { Loading, Logged } from '../state/mailState';
import type { Going } from '../border/agenda';
import type { Beginning } from '../border/drafts';
import { beginDraft, type Drafting } from './drafts';
import { noPostOffice, type Sending } from './submission';
import { storageTrouble } from '../storage/recordStore';
import { NotWritten } from '../storage/committing';

/** What is needed to have mail follow. */
export type Following = Drafting & Pick<Sending, 'postOn'> & Pick<Loading, 'journalReady'> & Pick<Logged, 'commands'>;

/** A file that goes along, with its bytes where it is no message of this mailbox. */
export type FileAlong = Omit<DraftFile, 'id' | 'size'> & { bytes?: Uint8Array; size?: number };

/** A message that is to go: written here, or begun as an answer or a forward, with a text before what it quotes. */
export type ToGo =
  | (Pick<Draft, 'how' | 'answers' | 'account' | 'to' | 'subject' | 'rich' | 'html' | 'text' | 'quoted' | 'signed'> & {
      files: FileAlong[];
    })
  | { begin: Pick<Beginning, 'how' | 'answers'>; to: string | null; html: string | null };

/** Writes one down. */
async function written(mailbox: Following, id: string, one: ToGo): Promise<Draft> {
  const { drafts } = mailbox;
  if ('begin' in one) {
    const begun = await beginDraft(mailbox, { ...one.begin, id, rich: true, given: {} });
    if (!begun.ok) throw new Refused(`${begun.error} Nothing was changed.`);
    const draft = {
      ...begun.draft,
      ...(one.to === null ? {} : { to: one.to }),
      ...(one.html === null ? {} : { html: one.html }),
    };
    const read = recipientsOfDraft(draft);
    if (!read.ok) throw new Refused(`“${draft.subject}” goes to nobody: ${read.error} Nothing was changed.`);
    return draft;
  }
  const { files, ...content } = one;
  const kept: DraftFile[] = [];
  for (const [i, { bytes, ...file }] of files.entries()) {
    if (bytes) await drafts.keepFile(id, `f${i}`, bytes);
    kept.push({ ...file, id: `f${i}`, size: bytes?.length ?? file.size ?? 0 });
  }
  return { ...freshDraft, ...content, id, cc: '', files: kept };
}

/** Writes down what is to follow, does the command, and lets it go. Nothing of it is left where the command is not done. */
export async function withMail<T>(
  mailbox: Following,
  command: string,
  list: readonly ToGo[],
  { due, zone }: Going,
  work: () => Promise<T>,
): Promise<T> {
  if (list.length === 0) return work();
  if (!mailbox.postOn) throw new Refused(`${noPostOffice} Nothing was changed.`);
  const { drafts } = mailbox;
  await drafts.ready();
  const ids = list.map((_, n) => `${command.replace(/[^\w-]/g, '_').slice(0, 80)}-${n}`);
  try {
    for (const [n, one] of list.entries()) {
      const draft = await written(mailbox, ids[n], one);
      const size = draft.files.reduce((sum, file) => sum + file.size, 0);
      if (size > mostBytes)
        throw new Refused(
          `What goes along with “${draft.subject}” has ${Math.ceil(size / 1e6)} MB: ${mostBytes / 1e6} MB is the most. Nothing was changed.`,
        );
      const now = mailbox.now();
      await drafts.keep({ ...draft, at: now, due: Math.max(due, now), zone, command });
    }
    const result = await work();
    await release(mailbox, ids);
    return result;
  } catch (error) {
    if (!mailbox.commands.has(command)) for (const id of ids) await drafts.remove(id).catch(() => undefined);
    if (error instanceof Refused || error instanceof NotWritten || mailbox.commands.has(command)) throw error;
    throw new NotWritten(storageTrouble(error));
  }
}

/** Lets drafts go whose command was done. One that can’t be written now is let go at the next start. */
async function release({ drafts }: Pick<Following, 'drafts'>, ids: readonly string[]): Promise<void> {
  for (const id of ids)
    await drafts
      .inTurn(async () => {
        const draft = drafts.get(id);
        if (draft) await drafts.keep({ ...draft, command: null });
      })
      .catch(() => undefined);
}

/** What a crash left: goes where its command was done, is gone where it was not. Once, at the start. */
export async function settleFollowing(mailbox: Pick<Following, 'drafts' | 'journalReady' | 'commands'>): Promise<void> {
  await Promise.all([mailbox.journalReady(), mailbox.drafts.ready()]);
  for (const { id, command } of mailbox.drafts.waiting())
    if (command !== null && mailbox.commands.has(command)) await release(mailbox, [id]);
    else await mailbox.drafts.remove(id);
}
