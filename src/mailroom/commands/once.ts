// Commands are done once: what is sent again under the same id gets the receipt of the first time.
import type { Receipt } from '../border/outcome';
import type { Loading, Logged } from '../state/mailState';

/** A command that can't be carried out as it was given: the reason in words, and nothing was changed. */
export class Refused extends Error {
  constructor(reason: string) {
    super(reason);
    this.name = 'Refused';
  }
}

export const nothing = (says: string): Receipt => ({ seq: null, count: 0, says });

/** The receipt of a command that was done before under the same id: it is not done again. */
export async function doneBefore(
  mailbox: Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'>,
  command: string,
): Promise<Receipt | null> {
  // A call that is sent again after a crash may be the first that this mailbox hears: the journal knows it.
  await mailbox.journalReady();
  if (!mailbox.commands.has(command)) return null;
  const head = mailbox.heads.findLast((h) => h.command === command);
  return head ? { seq: head.seq, count: head.count, says: head.says } : nothing('Done.');
}
