// Drafts as the page knows them: which there are, and which is being written.
import { create } from 'zustand';
import type { Beginning, DraftRow, DraftKind } from '../../mailroom/border/drafts';
import { mailroom, onMailroom } from '../../mailroom/client';
import { contentOf } from '../../core/writing/draft';
import { readMailto } from '../../core/writing/mailto';
import { typedAddress } from '../../core/writing/recipient';
import { reasonOf } from '../../core/text/sentences';
import { attendThrown, commandId, say } from './desk';
import { forgetCopy, forgetOldAnswers, oldAnswers } from './draftCopies';
import { noteDone } from './undoing';
import { usePreferences } from './preferences';

interface DraftsState {
  rows: readonly DraftRow[];
  /** The draft that is being written; null where none is. */
  open: string | null;
}

export const useDrafts = create<DraftsState>(() => ({ rows: [], open: null }));

/** Asks for the drafts again. */
export async function refreshDrafts(): Promise<void> {
  const rows = await mailroom.drafts().catch(() => null);
  if (rows) useDrafts.setState({ rows });
}

let soon: ReturnType<typeof setTimeout> | null = null;
onMailroom((event) => {
  if (event.kind === 'sent') {
    say({ text: event.says, tone: event.ok ? 'done' : 'trouble' });
    void refreshDrafts();
  } else if (event.kind === 'drafts' || event.kind === 'role')
    soon ??= setTimeout(() => {
      soon = null;
      void refreshDrafts();
    }, 100);
});

attendThrown(bringBackDraft);

export const openDraft = (open: string | null) => useDrafts.setState({ open });

async function begin(how: DraftKind, answers: number[], given: Beginning['given'] = {}): Promise<void> {
  const rich = usePreferences.getState().writeRich;
  const result = await mailroom.beginDraft({ id: commandId(), how, answers, rich, given });
  if (result.ok) openDraft(result.draft.id);
  else say({ text: result.error, tone: 'trouble' });
}

const told = (error: unknown) => say({ text: reasonOf(error), tone: 'trouble' });

/** Writes something new. */
export const writeNew = (given?: Beginning['given']): void => void begin('new', [], given).catch(told);

/** Writes what a link asks for (RFC 6068): it only begins a draft, which the person looks through. */
export function writeMailto(link: string): void {
  const read = readMailto(link);
  if (!read) return say({ text: 'This link writes to nobody.', tone: 'trouble' });
  const typed = (list: typeof read.to): string => list.map(typedAddress).join(', ');
  const { to, cc, bcc, subject, body } = read;
  writeNew({ to: typed(to), cc: typed(cc), bcc: typed(bcc), subject: subject.slice(0, 2_000), text: body });
}

/** Answers or forwards messages: goes on with what was begun, where the same was. */
export function answerWith(how: Exclude<DraftKind, 'new'>, answers: number[]): void {
  const begun = useDrafts
    .getState()
    .rows.find((row) => row.how === how && row.due === null && row.answers.join() === answers.join());
  if (begun) openDraft(begun.id);
  else void begin(how, answers).catch(told);
}

/** Begins an answer or a forward with something in it already: what a stamp opens. */
export const beginWith = (how: DraftKind, answers: number[], given: Beginning['given']): void =>
  void begin(how, answers, given).catch(told);

/** Throws a draft away; Undo brings it back. `touched`: something was written in it. */
export async function throwAwayDraft(id: string, to: string, touched: boolean): Promise<void> {
  const result = await mailroom.throwDraft(id, true);
  if (!result.ok) return say({ text: result.error, tone: 'trouble' });
  if (useDrafts.getState().open === id) openDraft(null);
  forgetCopy(id);
  if (touched) {
    noteDone({ thrown: id, says: `Threw the draft to ${to || 'nobody yet'} away` });
    say({ text: 'The draft is thrown away.', tone: 'done' });
  }
  await refreshDrafts();
}

/** Brings a draft back that was thrown away, and goes on with it. */
export async function bringBackDraft(id: string): Promise<void> {
  const result = await mailroom.throwDraft(id, false);
  if (!result.ok) return say({ text: result.error, tone: 'trouble' });
  openDraft(id);
  say({ text: 'The draft is back. It stands in Drafts.', tone: 'done' });
  await refreshDrafts();
}

/** Takes a message back that has not gone yet: it is written again as it was. */
export async function takeBack(id: string): Promise<void> {
  const result = await mailroom.takeBackDraft(id);
  if (!result.ok) say({ text: result.error, tone: 'trouble' });
  else openDraft(id);
  await refreshDrafts();
}

/** Takes the answers up that an earlier version kept beside the mailbox. */
export async function takeUpOldAnswers(): Promise<void> {
  const old = oldAnswers();
  for (const { id, all, recipients: to, copies: cc, account, subject, text } of old) {
    const draft = `answer-${id}`;
    const how = all ? 'reply all' : 'reply';
    let begun = await mailroom.beginDraft({ id: draft, how, answers: [id], rich: false, given: {} });
    // The message that it answers is gone: what was written is kept all the same.
    if (!begun.ok) begun = await mailroom.beginDraft({ id: draft, how: 'new', answers: [], rich: false, given: {} });
    if (!begun.ok) return;
    // What was quoted stands in what was typed already.
    const quoted = { html: '', text: '' };
    const kept = await mailroom.keepDraft(draft, {
      ...contentOf(begun.draft),
      to,
      cc,
      account,
      subject,
      text,
      quoted,
      at: Date.now(),
    });
    if (!kept.ok) return;
  }
  if (old.length) {
    forgetOldAnswers();
    await refreshDrafts();
  }
}
