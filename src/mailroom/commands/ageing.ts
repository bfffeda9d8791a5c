// Rules on the age of messages: they act as mail comes of age.
import type { Setup } from '../../core/line/setup';
import type { DryRunChange } from '../../core/line/dryRun';
import { conditionsOf, type Rule } from '../../core/rules/rule';
import { Asked, askedOf, candidates, changesBetween, type SortedMail } from '../search/candidates';
import { changeColumns } from './changeSetup';
import type { Sorting } from '../search/searching';
import type { Committing } from '../storage/committing';
import { messages } from '../../core/text/sentences';
import { expunged } from '../state/internedTables';
import type { MailState } from '../state/mailState';

/**
 * Has what has come of age since the last time: a rule on the age of messages acts on the day on which it begins to match.
 * What else the person did in between stays as it is.
 */
export async function ageMail(mailbox: SortedMail & Sorting & Committing & { agedAt: number }): Promise<number> {
  const { setup } = mailbox;
  const now = mailbox.now();
  const from = mailbox.agedAt || now;
  mailbox.agedAt = now;
  const ages = setup.rules.filter((rule) => rule.on && asksAge(rule));
  if (ages.length === 0 || from === now) return 0;
  await mailbox.readyToSort(setup);
  const changes = compareAges(mailbox, setup, from, now);
  if (changes.length === 0) return 0;
  await mailbox.commit({
    command: `aged-${mailbox.seq + 1}`,
    by: 'Wide Sort',
    says: `Sorted ${messages(changes.length)} that came of age for a rule`,
    ...changeColumns(mailbox, changes),
  });
  return changes.length;
}

/** When a rule on age begins or ends to match a message after some moment, milliseconds since 1970; null for never. */
export function nextOfAge({ columns, setup }: Pick<MailState, 'columns' | 'setup'>, after: number): number | null {
  const days = new Set(
    setup.rules
      .flatMap((rule) => (rule.on ? [...conditionsOf(rule)] : []))
      .flatMap((c) => (c.field === 'age' ? [c.days] : [])),
  );
  let next = Infinity;
  for (const n of days)
    for (let id = 0; id < columns.count; id++) {
      // Of that age it is no longer under, a moment later it is over it.
      const of = columns.date[id] + n * 86_400_000 + 1;
      if (of > after && of < next && columns.place[id] !== expunged) next = of;
    }
  return next === Infinity ? null : next;
}

const asksAge = (rule: Rule): boolean => [...conditionsOf(rule)].some(({ field }) => field === 'age');

/** What one setup decides otherwise at two moments. */
function compareAges(mailbox: SortedMail, setup: Setup, from: number, to: number): DryRunChange[] {
  const aging = setup.rules.filter(asksAge);
  const [was, is] = [from, to].map((now) => new Asked(mailbox, setup, now).matcher(aging));
  const changed = function* () {
    for (const candidate of candidates(mailbox, to))
      if (was.all(candidate).length !== is.all(candidate).length) yield candidate;
  };
  // As if these rules had only now been made.
  const without: Setup = { ...setup, rules: setup.rules.filter((rule) => !asksAge(rule)) };
  return changesBetween(mailbox, without, setup, changed(), askedOf(mailbox, without, setup, to));
}
