// Running the rules over the mail that is here: all of them when the person asks, those on age as it comes of age.
import { type Setup, withoutRules } from '../../core/line/setup';
import type { DryRunChange } from '../../core/line/dryRun';
import { conditionsOf, type Rule } from '../../core/rules/rule';
import type { Receipt } from '../border/outcome';
import { Asked, askedOf, candidates, changesBetween, type SortedMail } from '../search/candidates';
import { changeColumns } from './changeSetup';
import { doneBefore } from './once';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Asking, Sorting } from '../search/searching';
import type { Committing } from '../storage/committing';
import { messages } from '../../core/text/sentences';
import type { Tabled } from '../search/indexed';

/** Sends the mail here down the rules as they are: one command, undone as one. */
export async function runRules(
  mailbox: MailState &
    Pick<Stored, 'envelopes'> &
    Pick<Loading, 'journalReady'> &
    Pick<Logged, 'heads' | 'commands'> &
    Pick<Correspondents, 'people'> &
    Judging &
    Asking &
    Tabled &
    Sorting &
    Committing,
  command: string,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const { setup } = mailbox;
  await mailbox.readyToSort(setup);
  const changes = changesBetween(mailbox, withoutRules(setup), setup);
  if (changes.length === 0) return { seq: null, count: 0, says: 'The rules would change nothing here' };
  const says = `Ran the rules over the mail here: ${messages(changes.length)} changed`;
  const seq = await mailbox.commit({ command, by: 'you', says, ...changeColumns(mailbox, changes) });
  return { seq, count: changes.length, says };
}

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
