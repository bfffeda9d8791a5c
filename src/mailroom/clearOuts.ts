// Clearing out: what a clear-out comes to on the mail here, and the messages it goes to.
import {
  chooseToClear,
  outstanding,
  type ChosenToClear,
  type ClearOut,
  type ClearOutFacts,
  type Outstanding,
} from '../core/clearout/clearOut';
import { bit } from './columns';
import type { ClearOutReport } from './clearOutApi';
import type { Mailbox } from './mailbox';
import type { Reading } from './redundancy';
import { rowOf } from './rows';
import { gone } from './tables';
import type { View } from './viewsApi';

/** Rows shown from each end, and for each reason to look twice. */
const mostShown = 5;
const mostOutstanding = 20;

/** What a clear-out looks at, newest first: a view, or all places but Junk, the Bin, Sent and Drafts. */
function looksAt({ views, columns, tables }: Mailbox, of: View | null): Int32Array {
  if (of) return views.list(of);
  const not = new Set([gone, ...(['junk', 'bin', 'sent', 'drafts'] as const).map((place) => tables.placeIndex(place))]);
  return views.newestFirst.filter((id) => !not.has(columns.place[id]));
}

/** Settled once {@link chosen} can answer; false where nobody waited any more. */
export async function readyToChoose(
  mailbox: Mailbox,
  choice: ClearOut,
  of: View | null,
  reading?: Reading,
): Promise<boolean> {
  await mailbox.ready();
  if (of) await mailbox.views.ready(of);
  return choice.redundant ? mailbox.redundancy.ready(looksAt(mailbox, of), reading) : true;
}

function factsOf(mailbox: Mailbox): ClearOutFacts {
  const { columns, derived, people, finding, redundancy } = mailbox;
  const index = mailbox.senderIndex.grow(columns.count);
  /** Which senders are meant, by the question: a clear-out asks one for all of its messages. */
  const matching = new Map<ClearOut['from'], Uint8Array>();
  const answered = finding.answered();
  const known = index.senders.map(({ address }): boolean | null => (address === '' ? false : null));
  const isKnown = (sender: number): boolean => (known[sender] ??= people.knows(index.senders[sender].address));
  const stands: Record<Outstanding, (id: number) => boolean> = {
    flagged: (id) => (columns.bits[id] & bit.flagged) !== 0,
    // Written to the person alone by somebody, and without an answer of theirs.
    unanswered: (id) => derived.kind(id) === 'alone' && !derived.isOwn(id) && !answered.has(id),
    known: (id) => !derived.isOwn(id) && isKnown(index.of[id]),
    attachments: (id) => derived.hasAttachments(id),
  };
  return {
    date: (id) => columns.date[id],
    size: (id) => index.sizes[id],
    read: (id) => (columns.bits[id] & bit.read) !== 0,
    silenced: (id) => (columns.bits[id] & bit.silenced) !== 0,
    redundant: (id) => redundancy.has(id),
    kind: (id) => derived.kind(id),
    isFrom: (id, from) => {
      let its = matching.get(from);
      if (!its) matching.set(from, (its = index.matching(from)));
      return its[index.of[id]] === 1;
    },
    stands,
  };
}

/** The messages that a clear-out goes to. Only after {@link readyToChoose}. */
export function chosen(mailbox: Mailbox, choice: ClearOut, of: View | null, facts = factsOf(mailbox)): ChosenToClear {
  return chooseToClear(looksAt(mailbox, of), choice, mailbox.now(), facts);
}

/** How many messages each of some clear-outs would touch; null where conversations would have to be read for it. */
export async function clearOutCounts(
  mailbox: Mailbox,
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
  mailbox: Mailbox,
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
