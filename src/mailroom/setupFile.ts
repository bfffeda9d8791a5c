// The whole setup as one document, out and in, with the junk filter's model.
import { encodeBase64 } from '../core/mail/transfer';
import { parseSetup, type Setup } from '../core/line/setup';
import type { SetupEdit } from './api';
import { doneBefore, type EditResult } from './commands';
import type { Mailbox } from './mailbox';

/** The edits that put all of a setup in. What others refer to comes first. */
export function setupEdits(setup: Setup): SetupEdit[] {
  const lists = [
    'folders',
    'labels',
    'register',
    'accounts',
    'searches',
    'lanes',
    'left',
    'told',
    'contacts',
    'rules',
  ] as const;
  const edits = lists.flatMap((list) => setup[list].map((item) => ({ list, id: item.id, item }) as SetupEdit));
  return [...edits, { list: 'junk', id: 'junk', item: setup.junk }];
}

/** The edits that take off everything that a setup does not have. Rules go before what they refer to. */
function removals(now: Setup, next: Setup): SetupEdit[] {
  const lists = [
    'rules',
    'told',
    'lanes',
    'searches',
    'left',
    'register',
    'contacts',
    'accounts',
    'labels',
    'folders',
  ] as const;
  return lists.flatMap((list) => {
    const kept = new Set(next[list].map(({ id }) => id));
    return now[list].filter(({ id }) => !kept.has(id)).map(({ id }) => ({ list, id, item: null }) as SetupEdit);
  });
}

/** Writes the setup as JSON, with what the junk filter has learned (`junk.carried`). */
export async function exportSetup(mailbox: Mailbox): Promise<string> {
  const carried = encodeBase64(await mailbox.junk.file(), '', 0);
  const { setup } = mailbox;
  return `${JSON.stringify({ ...setup, junk: { ...setup.junk, carried } }, null, 2)}\n`;
}

/** Takes a setup up in place of the one here: one command, undone as one. */
export async function importSetup(mailbox: Mailbox, command: string, document: string): Promise<EditResult> {
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  const read = parseSetup(document);
  if (!read.ok) return { ok: false, error: `This is no setup of Wide Sort: ${read.error}. Nothing was changed.` };
  const says = 'Took up a setup from a file';
  const setup = [...removals(mailbox.setup, read.setup), ...setupEdits(read.setup)];
  const seq = await mailbox.commit({ command, by: 'you', says, setup });
  return { ok: true, receipt: { seq, count: 0, says } };
}
