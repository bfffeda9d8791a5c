// Clearing out: what a clear-out comes to on the mail here, and the messages it goes to.
import { outstanding, type ClearOut } from '../../core/clearout/clearOut';
import type { ClearOutReport } from '../border/clearOuts';
import type { MailState, Revised, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Viewing, Searching } from '../search/searching';
import type { Reading } from '../search/redundancy';
import { rowOf } from './row';
import type { View } from '../border/views';
import { looksAt, readyToChoose, factsOf, chosen } from '../search/clearOutChoice';

/** Rows shown from each end, and for each reason to look twice. */
const mostShown = 5;

const mostOutstanding = 20;

/** How many messages each of some clear-outs would touch; null where conversations would have to be read for it. */
export async function clearOutCounts(
  mailbox: MailState & Pick<Loading, 'ready'> & Correspondents & Viewing & Pick<Searching, 'finding' | 'redundancy'>,
  choices: readonly ClearOut[],
  of: View | null,
): Promise<(number | null)[]> {
  await mailbox.ready();
  if (of) await mailbox.views.ready(of);
  const facts = factsOf(mailbox);
  return choices.map((choice) => (choice.redundant ? null : chosen(mailbox, choice, of, facts).ids.length));
}

/** What a clear-out would touch; null where nobody waited for the answer any more. */
export async function clearOutReport(
  mailbox: MailState &
    Revised &
    Pick<Stored, 'envelopes'> &
    Pick<Loading, 'ready'> &
    Correspondents &
    Judging &
    Viewing &
    Pick<Searching, 'finding' | 'redundancy'>,
  choice: ClearOut,
  of: View | null,
  reading: Reading,
): Promise<ClearOutReport | null> {
  if (!(await readyToChoose(mailbox, choice, of, reading))) return null;
  const { columns, senderIndex } = mailbox;
  const facts = factsOf(mailbox);
  const { ids, standsOut, spared, kept } = chosen(mailbox, choice, of, facts);
  const rows = (some: Int32Array) => [...some].map((id) => rowOf(mailbox, id));
  let bytes = 0;
  let unread = 0;
  const already = { archive: 0, bin: 0 };
  const [archive, bin] = [mailbox.tables.placeIndex('archive'), mailbox.tables.placeIndex('bin')];
  for (const id of ids) {
    if (columns.place[id] === archive) already.archive++;
    else if (columns.place[id] === bin) already.bin++;
    bytes += senderIndex.sizes[id];
    if (!facts.read(id)) unread++;
  }
  const examples = Object.fromEntries(
    outstanding.map((reason) => {
      const some: number[] = [];
      for (let at = 0; at < ids.length && some.length < mostOutstanding; at++)
        if (facts.stands[reason](ids[at])) some.push(ids[at]);
      return [reason, rows(Int32Array.from(some))];
    }),
  ) as ClearOutReport['examples'];
  const newest = ids.subarray(0, mostShown);
  return {
    revision: mailbox.revision,
    of: looksAt(mailbox, of).length,
    count: ids.length,
    unread,
    bytes,
    already,
    from: ids.length ? columns.date[ids[ids.length - 1]] : null,
    to: ids.length ? columns.date[ids[0]] : null,
    spared,
    kept,
    standsOut,
    examples,
    newest: rows(newest),
    oldest: rows(ids.subarray(Math.max(newest.length, ids.length - mostShown))),
  };
}
