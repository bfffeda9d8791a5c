// One message as a row shows it.
import type { Row } from '../border/rows';
import { bit } from '../state/columns';
import { deletedOn } from '../state/retention';
import { releaseOf } from '../state/waiting';
import type { MailState } from '../state/mailState';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import { inks, type Ink } from '../../core/mail/label';

/** What of the mailbox rows are made from. */
export type RowSource = MailState & Pick<Stored, 'envelopes'> & Judging;

/** Whether a message is flagged and past due. */
export function isLate({ columns }: Pick<MailState, 'columns'>, id: number, now: number): boolean {
  return (columns.bits[id] & bit.flagged) !== 0 && columns.due[id] > 0 && columns.due[id] < now;
}

/** The ink of a row: what a rule gave it, else that of its first label that inks rows. */
function rowInk({ columns, tables, setup }: Pick<MailState, 'columns' | 'tables' | 'setup'>, id: number): Ink | null {
  const byRule = inks[columns.ink[id] - 1];
  if (byRule) return byRule;
  const labels = tables.labelSets.items[columns.labels[id]] ?? [];
  return setup.labels.find((label) => label.row && labels.includes(label.id))?.ink ?? null;
}

/** When what waits in a tray or is held back is delivered, milliseconds since 1970; null where nothing by itself does. */
function waitsUntil(mailbox: RowSource, id: number): number | null {
  const { at } = releaseOf(mailbox, mailbox.now())(id);
  return at === Infinity ? null : at;
}

/** A message as one row shows it. Its envelope must have been made ready. */
export function rowOf(mailbox: RowSource, id: number): Row {
  const { columns, tables, envelopes, derived, setup } = mailbox;
  const envelope = envelopes.get(id);
  const place = tables.place(columns.place[id]);
  const bits = columns.bits[id];
  const { account, own } = derived.whose(id, envelope);
  return {
    id,
    from: envelope.from,
    to: envelope.to.slice(0, 50),
    subject: envelope.subject,
    preview: envelope.preview,
    date: columns.date[id],
    unread: !(bits & bit.read),
    flagged: (bits & bit.flagged) !== 0,
    done: (bits & bit.done) !== 0,
    due: columns.due[id] || null,
    late: isLate(mailbox, id, mailbox.now()),
    attachments: envelope.attachments.length,
    labels: tables.labelSets.items[columns.labels[id]] ?? [],
    place,
    account: setup.accounts[account]?.id ?? null,
    own,
    conversation: derived.conversation[id],
    silenced: (bits & bit.silenced) !== 0,
    ink: rowInk(mailbox, id),
    whole: null,
    tray: null,
    damage: envelope.damage,
    until: place === 'held' ? columns.until[id] || waitsUntil(mailbox, id) : null,
    back: place === 'inbox' && columns.waitsFrom[id] > 0 ? columns.delivered[id] || null : null,
    delivered: place === 'inbox' ? columns.delivered[id] || null : null,
    deletedOn: deletedOn(mailbox, id),
    score: place === 'junk' ? mailbox.junk.score(id) : null,
  };
}
