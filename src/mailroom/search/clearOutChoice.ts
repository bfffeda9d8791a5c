// Which messages a clear-out goes to.
import { kept } from '../../core/data/rows';
import {
  chooseToClear,
  type ChosenToClear,
  type ClearOut,
  type ClearOutFacts,
  type Outstanding,
} from '../../core/clearout/clearOut';
import { bit } from '../state/columns';
import type { MailState, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Viewing, Searching } from './searching';
import type { Reading } from './redundancy';
import type { View } from '../border/views';
import { placeTraits } from '../../core/mail/place';

/** What a clear-out looks at, newest first: a view, or all places but Junk, the Bin, Sent and Drafts. */
export function looksAt(
  { views, columns, tables }: Pick<MailState, 'columns' | 'tables'> & Viewing,
  of: View | null,
): Int32Array {
  if (of) return views.list(of);
  const cleared = tables.places.items.map((place) => placeTraits(place).cleared);
  return kept(views.newestFirst, (id) => cleared[columns.place[id]]);
}

/** Settled once {@link chosen} can answer; false where nobody waited any more. */
export async function readyToChoose(
  mailbox: Pick<MailState, 'columns' | 'tables'> & Pick<Loading, 'ready'> & Viewing & Pick<Searching, 'redundancy'>,
  choice: ClearOut,
  of: View | null,
  reading?: Reading,
): Promise<boolean> {
  await mailbox.ready();
  if (of) await mailbox.views.ready(of);
  return choice.redundant ? mailbox.redundancy.ready(looksAt(mailbox, of), reading) : true;
}

export function factsOf(
  mailbox: Pick<MailState, 'columns' | 'derived'> & Correspondents & Pick<Searching, 'finding' | 'redundancy'>,
): ClearOutFacts {
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
export function chosen(
  mailbox: MailState & Correspondents & Viewing & Pick<Searching, 'finding' | 'redundancy'>,
  choice: ClearOut,
  of: View | null,
  facts = factsOf(mailbox),
): ChosenToClear {
  return chooseToClear(looksAt(mailbox, of), choice, mailbox.now(), facts);
}
