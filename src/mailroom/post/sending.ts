// Sending drafts: each waits until its moment, goes once, and what was to follow is done only once it has gone.
//
// A draft goes under a Message-ID of its own and with the same bytes however often it is tried, so that a crash on the way
// sends it again and the post office knows it again (postOffice.ts). That it has gone is written down before what follows.
import { composeMessage, type FileToSend, type WrittenMessage } from '../../core/writing/composing';
import { threadFields } from '../../core/writing/threadFields';
import { mostBytes, recipientsOfDraft, type Draft } from '../../core/writing/draft';
import { wholeText } from '../../core/writing/draftText';
import { fileName } from '../../core/text/fileName';
import { messages, reasonOf } from '../../core/text/sentences';
import type { DraftAsFile, Kept } from '../border/drafts';
import { act } from '../commands/acts';
import { expunged } from '../state/internedTables';
import { storageTrouble } from '../storage/recordStore';
import { newerThan, type Drafting } from './drafts';
import type { PostOffice } from './postOffice';
import { noPostOffice, type Sending } from './submission';

type Outgoing = Drafting & Sending & Parameters<typeof act>[0];

/** Nothing is sent later than so many days from now. */
const latest = 366;
const day = 86_400_000;

/** The bytes of a draft’s files; the name of the first that is gone. */
async function filesOf(mailbox: Drafting, draft: Draft): Promise<FileToSend[] | string> {
  const files: FileToSend[] = [];
  for (const { id, name, type, contentId, message } of draft.files) {
    const bytes =
      message === undefined
        ? await mailbox.drafts.file(draft.id, id)
        : mailbox.columns.place[message] === expunged
          ? null
          : await mailbox.reader.one(message, 'raw', undefined);
    if (!bytes) return name;
    files.push({ name, type, bytes, contentId });
  }
  return files;
}

type Composed = { ok: true; message: WrittenMessage } | { ok: false; error: string };

/** The message of a draft, dated `date`, or why there is none. */
async function composed(mailbox: Drafting, draft: Draft, date: number): Promise<Composed> {
  const account = mailbox.setup.accounts.find(({ id }) => id === draft.account);
  if (!account) return { ok: false, error: 'Choose the account from which to send.' };
  const read = recipientsOfDraft(draft);
  if (!read.ok) return read;
  const files = await filesOf(mailbox, draft);
  if (typeof files === 'string')
    return { ok: false, error: `“${files}” can’t be read any more. Take it off, or attach it anew.` };
  const size = files.reduce((sum, { bytes }) => sum + bytes.length, 0);
  if (size > mostBytes)
    return {
      ok: false,
      error: `What goes along has ${Math.ceil(size / 1e6)} MB: ${mostBytes / 1e6} MB is the most. Take something off.`,
    };
  const [answered] = draft.answers;
  const threads = (draft.how === 'reply' || draft.how === 'reply all') && answered < mailbox.columns.count;
  if (threads) await mailbox.envelopes.ensure([answered], mailbox.columns.count);
  const { to, cc, bcc } = read;
  return {
    ok: true,
    message: {
      messageId: `${draft.id}.draft${draft.edition}@${account.address.slice(account.address.lastIndexOf('@') + 1)}`,
      date,
      zone: draft.zone,
      from: { name: account.name, address: account.address },
      to,
      cc,
      bcc,
      subject: draft.subject,
      ...wholeText(draft, account.signature ?? ''),
      files,
      ...(threads ? threadFields(mailbox.envelopes.get(answered)) : {}),
    },
  };
}

/** A draft as a file (RFC 5322), for a program that sends; with Bcc, which that program takes off. */
export async function draftAsFile(
  mailbox: Drafting & { now(): number },
  id: string,
  zone: number,
): Promise<DraftAsFile> {
  await mailbox.drafts.ready();
  const draft = mailbox.drafts.get(id);
  if (!draft) return { ok: false, error: 'This draft is not there any more.' };
  const read = await composed(mailbox, { ...draft, zone }, mailbox.now());
  if (!read.ok) return read;
  const blob = new Blob([composeMessage(read.message, true)], { type: 'message/rfc822' });
  return { ok: true, blob, name: `${fileName(draft.subject || 'message')}.eml` };
}

/** Drafts on their way: what has begun to go can’t be taken back. */
export class Outbox {
  private readonly going = new Set<string>();

  constructor(
    private readonly mailbox: () => Outgoing,
    private readonly post: PostOffice,
    /** Fetches what is new: the copy for Sent. */
    private readonly check: () => Promise<unknown>,
    private readonly tell: (says: string, ok: boolean) => void,
  ) {}

  isGoing(id: string): boolean {
    return this.going.has(id);
  }

  /** Has a draft go at a moment, unless a newer message came that the person does not know of. */
  send(id: string, due: number, zone: number): Promise<Kept> {
    const mailbox = this.mailbox();
    return mailbox.drafts.inTurn(() => this.schedule(mailbox, id, due, zone));
  }

  private async schedule(mailbox: Outgoing, id: string, due: number, zone: number): Promise<Kept> {
    const draft = mailbox.drafts.get(id);
    if (!draft || draft.gone) return { ok: false, error: 'This draft is not there any more.' };
    // Pressed twice it goes once.
    if (draft.due !== null) return { ok: true };
    if (!mailbox.postOn) return { ok: false, error: noPostOffice };
    if (due > mailbox.now() + latest * day) return { ok: false, error: 'It can’t go later than a year from now.' };
    const [answered] = draft.answers;
    if ((draft.how === 'reply' || draft.how === 'reply all') && answered < mailbox.columns.count) {
      const newer = newerThan(mailbox, answered).length;
      if (newer > draft.newer) {
        await mailbox.drafts.keep({ ...draft, newer });
        return {
          ok: false,
          error: 'It was not sent yet: a newer message came while you wrote. Look at it, or send it all the same.',
        };
      }
    }
    const read = await composed(mailbox, draft, due);
    if (!read.ok) return read;
    try {
      await mailbox.drafts.keep({ ...draft, due, zone });
      return { ok: true };
    } catch (error) {
      return { ok: false, error: storageTrouble(error) };
    }
  }

  /** Takes a draft back that has not begun to go: it is written again as it was. */
  takeBack(id: string): Promise<Kept> {
    const { drafts } = this.mailbox();
    return drafts.inTurn(async () => {
      const draft = drafts.get(id);
      // Where it was on its way when the page was closed nobody knows whether it has gone.
      const unknown = draft !== null && draft.due !== null && draft.tried !== null && draft.error === null;
      if (!draft || draft.gone || unknown || this.going.has(id)) return { ok: false, error: 'It has gone already.' };
      await drafts.keep({ ...draft, due: null });
      return { ok: true };
    });
  }

  /** When the next draft goes, or something of one that has gone is left to do. */
  next(now: number): number | null {
    let next: number | null = null;
    for (const { due, gone } of this.mailbox().drafts.list()) {
      const at = gone ? now : due;
      if (at !== null && (next === null || at < next)) next = at;
    }
    return next;
  }

  /** Sends what is due. */
  async due(now: number): Promise<void> {
    for (const { id, due, gone } of this.mailbox().drafts.list())
      if (!this.going.has(id) && (gone || (due !== null && due <= now))) await this.one(id);
  }

  private async one(id: string): Promise<void> {
    this.going.add(id);
    try {
      const mailbox = this.mailbox();
      const { drafts } = mailbox;
      const draft = await drafts.inTurn(() => this.trying(mailbox, id));
      if (!draft) return;
      // From here on nothing else changes it: it is neither written in, thrown away nor taken back.
      if (!draft.gone) {
        const error = await this.submit(mailbox, draft);
        if (error !== null) {
          await drafts.keep({ ...draft, due: null, error });
          return this.tell(
            `“${draft.subject || 'No subject'}” could not be sent: ${error} It stands in Drafts.`,
            false,
          );
        }
        await drafts.keep({ ...draft, gone: true });
      }
      await this.follow(mailbox, draft);
    } finally {
      this.going.delete(id);
    }
  }

  /** A draft written down as tried, or one that has gone; null where it was taken back meanwhile. */
  private async trying({ drafts }: Outgoing, id: string): Promise<Draft | null> {
    const draft = drafts.get(id);
    if (!draft || draft.gone) return draft;
    if (draft.due === null) return null;
    const tried = { ...draft, tried: draft.tried ?? draft.due, error: null };
    await drafts.keep(tried);
    return tried;
  }

  /** Hands a draft to the post office; why it could not, or null. */
  private async submit(mailbox: Outgoing, draft: Draft): Promise<string | null> {
    const read = await composed(mailbox, draft, draft.tried ?? mailbox.now());
    if (!read.ok) return read.error;
    try {
      await this.post.submit(composeMessage(read.message), mailbox.cursor, read.message.bcc);
      return null;
    } catch (error) {
      return reasonOf(error);
    }
  }

  /** Once it has gone: the answered message is put away, the draft is no more, the copy is fetched. */
  private async follow(mailbox: Outgoing, { id, after, answers, to, subject }: Draft): Promise<void> {
    const command = `answered-${id}`;
    await mailbox.journalReady();
    const there = answers.filter((one) => one < mailbox.columns.count && mailbox.columns.place[one] !== expunged);
    if (after !== 'stay' && there.length > 0 && !mailbox.commands.has(command))
      await mailbox.exclusive(() => act(mailbox, command, { ids: there }, { do: 'move', place: after }));
    await mailbox.drafts.remove(id);
    await this.check();
    const done =
      after === 'stay' ? '' : `, and ${messages(there.length)} went to ${after === 'bin' ? 'the Bin' : 'the Archive'}`;
    this.tell(
      `Sent to ${to.slice(0, 100) || 'those in Cc and Bcc'}: “${subject || 'No subject'}”${done}. It stands in Sent.`,
      true,
    );
  }
}
