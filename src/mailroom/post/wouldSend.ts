// Whom a rule that forwards or answers would have written to, had the mail here come in now: known before it is saved.
import { toAnswer } from '../../core/delivery/automaticAnswer';
import { edited, type SetupEdit } from '../../core/line/setupEdit';
import { addressKey } from '../../core/mail/address';
import type { WouldSend } from '../border/rules';
import { Asked, type SortedMail } from '../search/candidates';
import type { Sorting } from '../search/searching';
import { expunged } from '../state/internedTables';
import type { Readable } from '../reading/reader';
import { hopMark, mayGoOn, mostSentADay } from './ruleSends';

/** So many of the messages that it matches are looked at, the newest. */
const mostLooked = 200;
const mostNamed = 5;

/**
 * What a rule would have sent of the newest messages that it matches; null where it sends nothing or is not in order. Ends
 * early, with null, where `wanted` says that nobody waits any more.
 */
export async function wouldSend(
  mailbox: SortedMail & Sorting & Readable,
  edits: SetupEdit[],
  ruleId: string,
  wanted: () => boolean = () => true,
): Promise<WouldSend | null> {
  const next = edited(mailbox.setup, edits);
  const rule = next.ok ? next.setup.rules.find(({ id }) => id === ruleId) : undefined;
  if (!next.ok || !rule) return null;
  const answers = rule.then.some((action) => action.do === 'answer');
  const targets = rule.then.flatMap((action) => (action.do === 'forward' ? [action.to] : []));
  if (!answers && targets.length === 0) return null;
  await mailbox.readyToSort(next.setup, wanted);
  if (!wanted()) return null;
  const { columns, derived, envelopes, reader } = mailbox;
  const matched = new Asked(mailbox, next.setup).askRule(rule);
  const ids: number[] = [];
  for (let id = 0; id < columns.count; id++)
    if (matched.has(id) && columns.place[id] !== expunged && !derived.isOwn(id)) ids.push(id);
  const looked = ids.sort((a, b) => columns.date[b] - columns.date[a] || b - a).slice(0, mostLooked);
  const people = new Map<string, string>();
  const report: WouldSend = {
    of: ids.length,
    looked: looked.length,
    answered: 0,
    people: [],
    forwarded: 0,
    mostADay: mostSentADay,
  };
  for (const id of looked) {
    if (!wanted()) return null;
    const signs = await reader.one(id, 'ruleSigns', hopMark);
    if (!signs) continue;
    const envelope = envelopes.get(id);
    if (answers) {
      const whom = toAnswer(envelope, signs.answer, next.setup.accounts);
      if (whom.ok) people.set(addressKey(whom.to.address), whom.to.address);
    }
    report.forwarded += targets.filter((to) => mayGoOn(envelope, to, signs, next.setup.accounts)).length;
  }
  return { ...report, answered: people.size, people: [...people.values()].slice(0, mostNamed) };
}
