// Running the rules over the mail that is here: all of them when the person asks, those on age as it comes of age.
import { withoutRules } from '../../core/line/setup';
import type { Receipt } from '../border/outcome';
import { changesBetween } from '../search/candidates';
import { changeColumns, type Resorting } from './changeSetup';
import { doneBefore } from './once';
import { messages } from '../../core/text/sentences';

/** Sends the mail here down the rules as they are: one command, undone as one. */
export async function runRules(mailbox: Resorting, command: string): Promise<Receipt> {
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
