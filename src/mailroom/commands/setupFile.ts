// The whole setup as one document, out and in, with the junk filter's model.
import { parseSetup } from '../../core/line/setup';
import { replacingEdits } from '../../core/line/setupEdit';
import { type EditResult } from './changeSetup';
import { doneBefore } from './once';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Committing } from '../storage/committing';

/** Takes a setup up in place of the one here: one command, undone as one. */
export async function importSetup(
  mailbox: Pick<MailState, 'setup'> & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'> & Committing,
  command: string,
  document: string,
): Promise<EditResult> {
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  const read = parseSetup(document);
  if (!read.ok) return { ok: false, error: `This is no setup of Wide Sort: ${read.error}. Nothing was changed.` };
  const says = 'Took up a setup from a file';
  const setup = replacingEdits(mailbox.setup, read.setup);
  const seq = await mailbox.commit({ command, by: 'you', says, setup });
  return { ok: true, receipt: { seq, count: 0, says } };
}
