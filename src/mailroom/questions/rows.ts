// Rows: messages, conversations and trays as a list shows them, in windows.
import type { Row, RowWindow } from '../border/rows';
import type { Grouping, View } from '../border/views';
import { bit } from '../state/columns';
import { rowConversation } from './conversations';
import type { Filling, Revised, Loading } from '../state/mailState';
import { orderReady, rowList, type Ordering } from '../search/rowOrder';
import { rowOf, type RowSource } from './row';
import { trayRow } from './trays';

/** A window that was overtaken by a change so often is shown as it is; the next one follows with the next revision. */
const mostTries = 3;

/** A window of a view. */
export async function rows(
  mailbox: RowSource & Ordering & Revised & Readonly<Filling> & Pick<Loading, 'beginRest'>,
  view: View,
  grouping: Grouping,
  from: number,
  to: number,
): Promise<RowWindow> {
  // In another order than by date, what comes first is not known before all is.
  await (grouping.order ? orderReady(mailbox, view, grouping) : mailbox.views.readySoFar(view, grouping.grouped));
  const { columns, views } = mailbox;
  const { grouped, elsewhere } = grouping;
  for (let tries = 1; ; tries++) {
    const { revision, filling } = mailbox;
    const messages = views.list(view);
    const looked = views.lookedThrough(view);
    const list = rowList(mailbox, view, grouping);
    const ids = list.slice(Math.max(0, from), Math.max(0, to));
    let unread = 0;
    for (const id of messages) if (!(columns.bits[id] & bit.read)) unread++;
    await mailbox.envelopes.ensure(ids, columns.count);
    const rowNumber = views.rowOf(view, grouped);
    const out: Row[] = [];
    for (const id of ids) {
      const number = rowNumber(id);
      if (number < 0) out.push(await trayRow(mailbox, view, number, id));
      else
        out.push({
          ...rowOf(mailbox, id),
          whole: grouped ? await rowConversation(mailbox, id, view, elsewhere) : null,
        });
    }
    // A window is of one moment: what changed while it was read is read again, but not for ever, as during an import.
    if (tries < mostTries && views.list(view) !== messages) continue;
    // The first rows are out: the rest may be read now.
    mailbox.beginRest();
    const trays = list.reduce((n, id) => n + Number(rowNumber(id) < 0), 0);
    const counts = { total: list.length, trays, messages: messages.length, unread };
    const of = columns.count;
    return {
      revision,
      filling: filling > 0 || looked !== null,
      looked: looked === null ? null : { done: looked, of },
      ...counts,
      from: Math.max(0, from),
      rows: out,
    };
  }
}

/** Where a message, its conversation or its tray stands in a view; -1 where it does not. `id` below 0: a tray’s row. */
export async function position(mailbox: Ordering, view: View, grouping: Grouping, id: number): Promise<number> {
  await orderReady(mailbox, view, grouping);
  const list = rowList(mailbox, view, grouping);
  const row = mailbox.views.rowOf(view, grouping.grouped);
  const sought = id < 0 ? id : row(id);
  return list.findIndex((head) => row(head) === sought);
}
