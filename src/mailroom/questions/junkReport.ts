// Questions about junk: what the filter makes of a message, how it stands on the person's mail, what to look at again.
import { addressKey } from '../../core/mail/address';
import { crossValidate, figuresOf } from '../../core/junk/evaluate';
import { lineOf } from '../../core/junk/settings';
import { scoreOf } from '../../core/junk/verdict';
import type { FilterReport, Judgement, SecondLook } from '../border/junk';
import { bit } from '../state/columns';
import type { MailState, Loading } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import { rowOf } from './row';
import { expunged } from '../state/internedTables';
import { turn } from '../time/turn';

/** Fewer marks of either kind than this say nothing about how good the filter is. */
export const fewestMarks = 5;
const folds = 5;
/** As often as the filter at work goes through its marks. */
const rounds = 4;

/** The messages in a place, newest first. */
const inPlace = (mailbox: Viewing, place: 'inbox' | 'junk') => mailbox.views.list({ kind: 'place', place });

/** What waits for a second look: what is in Junk and nobody has marked. */
export function doubtfulJunk(mailbox: Pick<MailState, 'columns'> & Viewing): number[] {
  const answered = bit.markedJunk | bit.markedGood;
  return [...inPlace(mailbox, 'junk')].filter((id) => (mailbox.columns.bits[id] & answered) === 0);
}

/** What the filter makes of a message; null where its bytes can't be read. */
export async function judgement(
  mailbox: Pick<MailState, 'columns' | 'setup'> & Judging,
  id: number,
): Promise<Judgement | null> {
  const { columns, junk, setup } = mailbox;
  if (id < 0 || id >= columns.count || columns.place[id] === expunged) return null;
  const found = await junk.judgement(id);
  const mark = junk.markOf(id);
  return (
    found && { ...found, line: lineOf(setup.junk.strictness), marked: mark === null ? null : mark ? 'junk' : 'good' }
  );
}

/** How the filter stands on the mail in the Inbox and in Junk. `told` hears how many messages are judged. */
export async function filterReport(
  mailbox: Pick<MailState, 'columns' | 'tables'> & Pick<Loading, 'ready'> & Judging & Viewing,
  told: (done: number, total: number) => void,
): Promise<FilterReport> {
  await mailbox.ready();
  const { columns, junk } = mailbox;
  const marks = junk.markOf.bind(junk);
  const ids = [...inPlace(mailbox, 'inbox'), ...inPlace(mailbox, 'junk')];
  await junk.judge(ids, told);
  const spread = Array.from({ length: 101 }, () => ({ junk: 0, good: 0, inbox: 0, unmarked: 0 }));
  const inbox = mailbox.tables.placeIndex('inbox');
  for (const id of ids) {
    const score = junk.score(id);
    if (score === null) continue;
    const mark = marks(id);
    if (mark !== null) spread[score][mark ? 'junk' : 'good']++;
    else spread[score][columns.place[id] === inbox ? 'inbox' : 'unmarked']++;
  }
  const marked = await junk.taughtCounts();
  const enough = Math.min(marked.junk, marked.good) >= fewestMarks;
  let validated: FilterReport['validated'] = [];
  let figures: FilterReport['figures'] = null;
  if (enough) {
    const { base, examples } = await junk.examples();
    const judged = await crossValidate(examples, folds, 1, base, rounds, turn);
    validated = judged.map(({ margin, junk: is }) => ({ score: scoreOf(margin), junk: is }));
    figures = figuresOf(judged);
  }
  return { spread, judged: ids.length, marked, validated, figures, hasShipped: junk.hasShipped };
}

/**
 * What waits for a second look, the least like junk first: what the Register took stands far below the line, and is wanted
 * mail more often than what stands at it. Of each sender first only the newest, so that no sender fills the beginning.
 */
export async function secondLook(
  mailbox: MailState & Pick<Stored, 'envelopes'> & Pick<Loading, 'ready'> & Judging & Viewing,
  most: number,
  answered: readonly number[],
): Promise<SecondLook> {
  await mailbox.ready();
  const { envelopes, junk } = mailbox;
  const waiting = doubtfulJunk(mailbox);
  const there = new Set(waiting);
  await junk.judge(waiting);
  const senders = new Set<string>();
  // Newest first, as views are: the first of a sender is the newest.
  const [firsts, others] = [[] as number[], [] as number[]];
  for (const id of waiting) {
    const sender = addressKey(envelopes.get(id).from.address);
    (senders.has(sender) ? others : firsts).push(id);
    senders.add(sender);
  }
  const score = (id: number) => junk.score(id) ?? 101;
  const byScore = (list: number[]) => list.sort((a, b) => score(a) - score(b));
  const ids = [...byScore(firsts), ...byScore(others)].slice(0, most);
  return {
    rows: ids.map((id) => rowOf(mailbox, id)),
    total: waiting.length,
    again: answered.filter((id) => there.has(id)),
  };
}
