// Habits: what one message suggests for a rule, and moves that the person keeps making by hand.
import { addressKey } from '../../core/mail/address';
import { repeatedWords } from '../../core/rules/repeats';
import { expunged } from '../state/internedTables';
import { baseSubject } from '../../core/conversations/baseSubject';
import type { Envelope } from '../../core/mail/envelopeSchema';
import type { Place } from '../../core/mail/place';
import { Line } from '../../core/line/decide';
import type { Condition } from '../../core/rules/rule';
import type { Habit, RuleProposals } from '../border/rules';
import { bit } from '../state/columns';
import { Asked, candidates, type SortedMail } from '../search/candidates';
import type { MailState } from '../state/mailState';
import type { Sorting } from '../search/searching';

/** The third like move makes a habit. */
const habitual = 3;

/** The conditions that a message suggests, the most telling first. `others`: base subjects of like mail. */
export function suggestedBy(envelope: Envelope, others: readonly string[]): Condition[] {
  const { listId, from, to } = envelope;
  const out: Condition[] = [];
  if (listId) out.push({ field: 'list', how: 'is', text: listId });
  if (from.address) {
    out.push({ field: 'from', how: 'is', text: from.address });
    const domain = from.address.slice(from.address.lastIndexOf('@') + 1);
    if (domain !== from.address && domain) out.push({ field: 'from', how: 'domain', text: domain });
  }
  // What stands in this one subject alone would sort nothing but this one message.
  const subject = repeatedWords(baseSubject(envelope.subject).base, others);
  if (subject) out.push({ field: 'subject', how: 'contains', text: subject });
  for (const { address } of to.slice(0, 2)) if (address) out.push({ field: 'recipient', how: 'is', text: address });
  return out;
}

/** Where most of some messages were put by hand; the places that every mailbox has tell nothing. */
function chosenPlace({ columns, tables }: Pick<MailState, 'columns' | 'tables'>, ids: readonly number[]): Place | null {
  const counts = new Map<number, number>();
  for (const id of ids) {
    const place = tables.place(columns.place[id]);
    if ((columns.bits[id] & bit.byHand) !== 0 && (place.startsWith('folder:') || place === 'archive'))
      counts.set(columns.place[id], (counts.get(columns.place[id]) ?? 0) + 1);
  }
  const [most] = [...counts].sort((a, b) => b[1] - a[1]);
  return most ? tables.place(most[0]) : null;
}

/** So many subjects of like mail are looked at for what repeats. */
const mostLike = 2_000;

/** The base subjects of mail of the same list or sender that is of other conversations, the latest first. */
function othersLike({ columns, derived, envelopes }: SortedMail, id: number): string[] {
  const { listId, from } = envelopes.get(id);
  const sender = addressKey(from.address);
  const subjects: string[] = [];
  for (let other = columns.count - 1; other >= 0 && subjects.length < mostLike; other--) {
    if (derived.conversation[other] === derived.conversation[id] || columns.place[other] === expunged) continue;
    const its = envelopes.get(other);
    if (listId ? its.listId !== listId : addressKey(its.from.address) !== sender) continue;
    subjects.push(baseSubject(its.subject).base);
  }
  return subjects;
}

/** What a message suggests for a rule. */
export async function ruleProposals(mailbox: SortedMail & Sorting, id: number): Promise<RuleProposals> {
  await mailbox.readyToSort(mailbox.setup);
  if (id < 0 || id >= mailbox.columns.count) return { conditions: [], place: null };
  const conditions = suggestedBy(mailbox.envelopes.get(id), othersLike(mailbox, id));
  const asked = new Asked(mailbox, mailbox.setup);
  const bits = conditions.map(asked.ask);
  const alike = bits.length
    ? Array.from(candidates(mailbox), (candidate) => candidate.id).filter((one) => bits[0].has(one))
    : [];
  return {
    conditions: conditions.map((condition, i) => ({ condition, count: asked.here(bits[i]) })),
    place: chosenPlace(mailbox, alike),
  };
}

/** What the person keeps moving to a place by hand; null where it is no habit, or a rule does it already. */
export async function habit(
  mailbox: SortedMail & Sorting,
  ids: readonly number[],
  place: Place,
): Promise<Habit | null> {
  if (!place.startsWith('folder:') || ids.length === 0) return null;
  await mailbox.readyToSort(mailbox.setup);
  const { columns, tables, envelopes } = mailbox;
  const index = tables.placeIndex(place);
  const key = ({ listId, from }: Envelope) => listId || from.address.toLowerCase();
  const [id] = ids;
  const of = key(envelopes.get(id));
  // What came together by chance, as a ticked dozen of all kinds, says nothing of any sender.
  if (!of || ids.some((one) => key(envelopes.get(one)) !== of)) return null;
  const line = new Line(mailbox.setup);
  let count = 0;
  for (const candidate of candidates(mailbox)) {
    if (columns.place[candidate.id] !== index || key(candidate.envelope) !== of) continue;
    if (line.decided(candidate.envelope, candidate).place === place) return null;
    if (columns.bits[candidate.id] & bit.byHand) count++;
  }
  return count >= habitual ? { id, of, place, count } : null;
}
