// Rows: messages and conversations as a list shows them, in windows.
import type { Row, RowWindow } from './api';
import type { Grouping, View } from './viewsApi';
import { bit } from './columns';
import { deletedOn } from './commands';
import { rowConversation } from './conversations';
import type { Mailbox } from './mailbox';
import { inks, type Ink } from '../core/mail/place';

/** Whether a message is flagged and past due. */
export function isLate({ columns }: Mailbox, id: number, now: number): boolean {
  return (columns.bits[id] & bit.flagged) !== 0 && columns.due[id] > 0 && columns.due[id] < now;
}

/** The ink of a row: what a rule gave it, else that of its first label that inks rows. */
function rowInk({ columns, tables, setup }: Mailbox, id: number): Ink | null {
  const byRule = inks[columns.ink[id] - 1];
  if (byRule) return byRule;
  const labels = tables.labelSets.items[columns.labels[id]] ?? [];
  return setup.labels.find((label) => label.row && labels.includes(label.id))?.ink ?? null;
}

/** A message as one row shows it. Its envelope must have been made ready. */
export function rowOf(mailbox: Mailbox, id: number): Row {
  const { columns, tables, envelopes, derived, setup } = mailbox;
  const envelope = envelopes.get(id);
  const place = tables.place(columns.place[id]);
  const bits = columns.bits[id];
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
    account: setup.accounts[derived.account(id)]?.id ?? null,
    own: derived.isOwn(id),
    conversation: derived.conversation[id],
    silenced: (bits & bit.silenced) !== 0,
    ink: rowInk(mailbox, id),
    whole: null,
    damage: envelope.damage,
    deletedOn: deletedOn(mailbox, id),
    score: place === 'junk' ? mailbox.junk.score(id) : null,
  };
}

/** A window that was overtaken by a change so often is shown as it is; the next one follows with the next revision. */
const mostTries = 3;

/** A window of a view. */
export async function rows(
  mailbox: Mailbox,
  view: View,
  { grouped, elsewhere }: Grouping,
  from: number,
  to: number,
): Promise<RowWindow> {
  await mailbox.views.ready(view);
  const { columns, views } = mailbox;
  for (let tries = 1; ; tries++) {
    const { revision } = mailbox;
    const messages = views.list(view);
    const list = grouped ? views.heads(view) : messages;
    const ids = list.slice(Math.max(0, from), Math.max(0, to));
    let unread = 0;
    for (const id of messages) if (!(columns.bits[id] & bit.read)) unread++;
    await mailbox.envelopes.ensure(ids, columns.count);
    const out: Row[] = [];
    for (const id of ids)
      out.push({ ...rowOf(mailbox, id), whole: grouped ? await rowConversation(mailbox, id, view, elsewhere) : null });
    // A window is of one moment: what changed while it was read is read again, but not for ever, as during an import.
    if (tries < mostTries && views.list(view) !== messages) continue;
    // The first rows are out: the rest may be read now.
    mailbox.beginRest();
    const counts = { total: list.length, messages: messages.length, unread };
    return { revision, ...counts, from: Math.max(0, from), rows: out };
  }
}

/** Where a message, or its conversation, stands in a view; -1 where it does not. */
export async function position(mailbox: Mailbox, view: View, { grouped }: Grouping, id: number): Promise<number> {
  await mailbox.views.ready(view);
  const { views, derived } = mailbox;
  if (!grouped) return views.list(view).indexOf(id);
  const conversation = derived.conversation[id];
  return views.heads(view).findIndex((head) => derived.conversation[head] === conversation);
}
