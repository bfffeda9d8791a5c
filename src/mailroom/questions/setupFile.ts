// The whole setup as one document.
import { encodeBase64 } from '../../core/mail/transfer';
import type { MailState } from '../state/mailState';
import type { Judging } from '../junk/junkFilter';

/** Writes the setup as JSON, with what the junk filter has learned (`junk.carried`). */
export async function exportSetup(mailbox: Pick<MailState, 'setup'> & Judging): Promise<string> {
  const carried = encodeBase64(await mailbox.junk.file(), '', 0);
  const { setup } = mailbox;
  return `${JSON.stringify({ ...setup, junk: { ...setup.junk, carried } }, null, 2)}\n`;
}
