// Whom a rule that forwards or answers would have written to, had the mail here come in now: known before it is saved.
import { toAnswer } from '../../core/delivery/automaticAnswer';
import type { Send } from '../../core/effects/effect';
import { forwardedTo } from '../../core/effects/forward';
import { Line } from '../../core/line/decide';
import type { Setup } from '../../core/line/setup';
import { edited, type SetupEdit } from '../../core/line/setupEdit';
import { addressKey } from '../../core/mail/address';
import type { Rule } from '../../core/rules/rule';
import { rulesRun } from '../../core/rules/stampsRun';
import type { WouldSend } from '../border/rules';
import { arrivals, Asked, type SortedMail } from '../search/candidates';
import type { Sorting, Viewing } from '../search/searching';
import { expunged } from '../state/internedTables';
import type { Readable } from '../reading/reader';
import { hopMark, mayGoOn } from './ruleSends';

/** So many of the messages that it matches are looked at, the newest. */
const mostLooked = 200;
const mostNamed = 5;

/** Whether what is sent is what a rule does, and not another one. */
const makes = (rule: Rule, send: Send, names: Setup): boolean =>
  rule.then.some((action) =>
    send.do === 'forward'
      ? action.do === 'forward' && forwardedTo(action, names).includes(send.to) && action.form === send.form
      : action.do === 'answer' && action.block === send.block,
  );

/**
 * What a rule would have sent of the newest messages that it matches; null where it sends nothing or is not in order. Ends
 * early, with null, where `wanted` says that nobody waits any more.
 */
export async function wouldSend(
  mailbox: SortedMail & Sorting & Viewing & Readable,
  edits: SetupEdit[],
  ruleId: string,
  wanted: () => boolean = () => true,
): Promise<WouldSend | null> {
  const next = edited(mailbox.setup, edits);
  const rule = next.ok ? rulesRun(next.setup).find(({ id }) => id === ruleId) : undefined;
  if (!next.ok || !rule) return null;
  if (!rule.then.some((action) => action.do === 'answer' || action.do === 'forward')) return null;
  await mailbox.readyToSort(next.setup, wanted);
  if (!wanted()) return null;
  const { columns, derived, reader } = mailbox;
  const asked = new Asked(mailbox, next.setup);
  const matched = asked.askRule(rule);
  const line = new Line(next.setup, (rules) => asked.matcher(rules));
  const people = new Map<string, string>();
  const report: WouldSend = { of: 0, looked: 0, answered: 0, people: [], forwarded: 0 };
  for (let id = 0; id < columns.count; id++)
    if (matched.has(id) && columns.place[id] !== expunged && !derived.isOwn(id)) report.of++;
  for (const candidate of arrivals(mailbox, 0)) {
    const { id, envelope } = candidate;
    if (report.looked === Math.min(report.of, mostLooked)) break;
    if (!matched.has(id) || derived.isOwn(id)) continue;
    report.looked++;
    // The stations and rules before it may take it.
    const its = line.decided(envelope, candidate).sends.filter((send) => makes(rule, send, next.setup));
    const signs = its.length ? await reader.one(id, 'ruleSigns', hopMark) : null;
    if (!wanted()) return null;
    if (!signs) continue;
    for (const send of its) {
      if (send.do === 'forward') {
        if (mayGoOn(envelope, send.to, signs, next.setup.accounts)) report.forwarded++;
        continue;
      }
      const whom = toAnswer(envelope, signs.answer, next.setup.accounts);
      if (whom.ok) people.set(addressKey(whom.to.address), whom.to.address);
    }
  }
  return { ...report, answered: people.size, people: [...people.values()].slice(0, mostNamed) };
}
