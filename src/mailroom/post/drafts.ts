// Drafts: begun, kept as they are typed, thrown away.
import { AccountIndex } from '../../core/mail/account';
import type { Address } from '../../core/mail/address';
import { htmlOfText } from '../../core/writing/outgoingHtml';
import {
  answerSubject,
  forwardedHtml,
  forwardedText,
  forwardSubject,
  quotedHtml,
  quotedText,
  recipientsOf,
  type Quotable,
} from '../../core/writing/answer';
import { typedAddress } from '../../core/writing/recipient';
import { freshDraft, type Draft, type DraftContent, type DraftFile } from '../../core/writing/draft';
import { firstWords } from '../../core/writing/draftText';
import { fileName } from '../../core/text/fileName';
import { exactTime } from '../../core/text/time';
import type { Beginning, DraftResult, DraftRow, Kept } from '../border/drafts';
import { seenFrom } from '../questions/conversations';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Readable } from '../reading/reader';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import { expunged } from '../state/internedTables';
import { Closed } from '../storage/records';
import type { DraftStore } from '../storage/draftStore';
import { storageTrouble } from '../storage/recordStore';

/** What is needed of the mailbox to write: what is answered is read in it. */
export type Drafting = MailState & Stored & Readable & Judging & Viewing & { readonly drafts: DraftStore };

/** So many messages are forwarded within one text at most; more go as files. */
const mostQuoted = 50;

const typed = (list: readonly Address[]): string => list.map(typedAddress).join(', ');

/** What storage refuses is told; a fault of the program is thrown. */
async function kept(work: () => Promise<unknown>): Promise<Kept> {
  try {
    await work();
    return { ok: true };
  } catch (error) {
    if (error instanceof Closed) return { ok: false, error: 'Everything was deleted meanwhile.' };
    return { ok: false, error: storageTrouble(error) };
  }
}

/** Messages of the conversation that others sent after one, oldest first. */
export function newerThan(mailbox: MailState & Viewing, id: number): number[] {
  const members = seenFrom(mailbox, id, { kind: 'place', place: 'inbox' }, true);
  return members.slice(members.indexOf(id) + 1).filter((member) => !mailbox.derived.isOwn(member));
}

async function quotable(mailbox: Drafting, id: number): Promise<Quotable> {
  const read = await mailbox.reader.one(id, 'quotable', undefined);
  return {
    envelope: mailbox.envelopes.get(id),
    when: exactTime(mailbox.columns.date[id]),
    text: read?.text ?? '',
    html: read?.html ?? null,
  };
}

/** What is quoted or forwarded below what is written. */
async function below(
  mailbox: Drafting,
  how: Beginning['how'],
  ids: readonly number[],
): Promise<DraftContent['quoted']> {
  if (how === 'new' || how === 'attach') return { html: '', text: '' };
  const forward = how === 'forward';
  const list = await Promise.all(ids.map((id) => quotable(mailbox, id)));
  return {
    html: list.map(forward ? forwardedHtml : quotedHtml).join(''),
    text: list.map(forward ? forwardedText : quotedText).join('\n\n'),
  };
}

/** Whom a new draft goes to, and about what. */
function heads(
  mailbox: Drafting,
  how: Beginning['how'],
  ids: readonly number[],
): Pick<DraftContent, 'to' | 'cc' | 'subject'> {
  if (ids.length === 0) return { to: '', cc: '', subject: '' };
  const envelope = mailbox.envelopes.get(ids[0]);
  if (how === 'forward' || how === 'attach')
    return {
      to: '',
      cc: '',
      subject: ids.length > 1 ? `Fwd: ${ids.length} messages` : forwardSubject(envelope.subject),
    };
  const { to, cc } = recipientsOf(envelope, how === 'reply all', new AccountIndex(mailbox.setup.accounts).own);
  return { to: typed(to), cc: typed(cc), subject: answerSubject(envelope.subject) };
}

/** Files that go along: of a forwarded message its own; of messages that are attached, themselves. */
async function alongWith(mailbox: Drafting, id: string, how: Beginning['how'], ids: readonly number[], html: string) {
  const files: DraftFile[] = [];
  for (const message of ids) {
    if (how === 'attach') {
      const { subject, size } = mailbox.envelopes.get(message);
      const name = `${fileName(subject || 'message')}.eml`;
      files.push({ id: `m${message}`, name, type: 'message/rfc822', size, message });
    } else if (how === 'forward')
      for (const file of (await mailbox.reader.one(message, 'forwarded', html)) ?? []) {
        const name = `f${files.length}`;
        await mailbox.drafts.keepFile(id, name, file.bytes);
        const { bytes, ...more } = file;
        files.push({ ...more, name: fileName(file.name), id: name, size: bytes.length });
      }
  }
  return files;
}

/** Begins a draft. Not kept for good before something is written in it. */
export async function beginDraft(
  mailbox: Drafting,
  { id, how: asked, answers, rich, given }: Beginning,
): Promise<DraftResult> {
  await mailbox.drafts.ready();
  const { columns, derived, setup } = mailbox;
  const old = mailbox.drafts.get(id);
  if (old) return { ok: true, draft: old };
  const ids = answers.filter((one) => one < columns.count && columns.place[one] !== expunged);
  if (asked !== 'new' && ids.length === 0) return { ok: false, error: 'The message is not here any more.' };
  const how = asked === 'forward' && ids.length > mostQuoted ? 'attach' : asked;
  await mailbox.envelopes.ensure(ids, columns.count);
  const quoted = await below(mailbox, how, ids);
  const account = ids.length ? setup.accounts.at(derived.account(ids[0])) : undefined;
  const text = given.text ?? '';
  const draft: Draft = {
    ...freshDraft,
    id,
    how,
    answers: ids,
    account: (ids.length && derived.account(ids[0]) >= 0 ? account?.id : undefined) ?? setup.accounts[0]?.id ?? '',
    ...heads(mailbox, how, ids),
    rich,
    html: rich && text ? htmlOfText(text) : '',
    quoted,
    newer: how === 'reply' || how === 'reply all' ? newerThan(mailbox, ids[0]).length : 0,
    ...given,
    text,
  };
  const result = await kept(async () => {
    draft.files = await alongWith(mailbox, id, how, ids, quoted.html);
    await mailbox.drafts.keep(draft);
  });
  return result.ok ? { ok: true, draft } : result;
}

/** Keeps what was typed. What is older than what is kept, or of a draft that is on its way, is not. */
export const keepDraft = ({ drafts }: Drafting, id: string, content: DraftContent): Promise<Kept> =>
  drafts.inTurn(async () => {
    const old = drafts.get(id);
    if (!old) return { ok: false, error: 'This draft is not there any more: it was sent or deleted.' };
    if (old.due !== null || old.gone) return { ok: false, error: 'This draft is being sent already.' };
    if (old.at > content.at) return { ok: true };
    const edition = old.edition + (old.tried === null ? 0 : 1);
    return kept(() => drafts.keep({ ...old, ...content, edition, tried: null, error: null }));
  });

/** Keeps the bytes of a file that is to go along; the draft names it once it is kept. */
export const keepDraftFile = ({ drafts }: Drafting, id: string, file: string, bytes: Uint8Array): Promise<Kept> =>
  drafts.get(id)
    ? kept(() => drafts.keepFile(id, file, bytes))
    : Promise.resolve({ ok: false, error: 'This draft is not there any more.' });

/** Throws a draft away, or brings it back; what nothing was written in goes at once. */
export const throwDraft = ({ drafts, now }: Drafting, id: string, away: boolean): Promise<Kept> =>
  drafts.inTurn(async () => {
    const old = drafts.get(id);
    if (!old) return { ok: false, error: 'This draft is not there any more.' };
    if (old.gone || old.due !== null) return { ok: false, error: 'It is being sent: take it back first.' };
    if (away && old.at === 0) return kept(() => drafts.remove(id));
    return kept(() => drafts.keep({ ...old, thrown: away ? now() : null }));
  });

/** A draft as it stands in a list. */
export const draftRow = (draft: Draft, going: boolean): DraftRow => {
  const { id, how, answers, to, subject, at, after, due, error } = draft;
  return {
    id,
    how,
    answers,
    to,
    subject,
    at,
    after,
    due,
    going,
    error: due === null ? error : null,
    words: firstWords(draft),
  };
};
