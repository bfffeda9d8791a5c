// The meta record: what of the mailbox is no message's, and how far the state packs go.
import type { Meta } from '../storage/stateRecords';
import type { DaysSeen } from './daysSeen';
import type { Items } from './items';
import { Tables } from './internedTables';

/** What of it the mailbox holds just as it is stored. */
type Own = Pick<Meta, 'setup' | 'cursor' | 'postOn' | 'agedAt' | 'remindedAt' | 'erasedTo'> & { tables: Tables };
type Others = { readonly daysSeen: DaysSeen; readonly items: Items };

/** Takes over into a mailbox what the record says. */
export function takeUpMeta(mailbox: Own & Others, meta: Meta): void {
  const { setup, cursor, postOn, agedAt, remindedAt, erasedTo } = meta;
  const own: Own = { setup, cursor, postOn, agedAt, remindedAt, erasedTo, tables: new Tables(meta) };
  Object.assign(mailbox, own);
  mailbox.daysSeen.takeUp(meta.daysSeen);
  mailbox.items.takeUp(meta.items);
}

/** What the record says of a mailbox in which `count` messages count. */
export function metaOf(mailbox: Readonly<Own> & Pick<Meta, 'seq' | 'first'> & Others, count: number): Meta {
  const { setup, cursor, postOn, agedAt, remindedAt, erasedTo, seq, first, tables, daysSeen, items } = mailbox;
  return {
    ...{ setup, cursor, postOn, agedAt, remindedAt, erasedTo, seq, first, count },
    places: [...tables.places.items],
    labelSets: [...tables.labelSets.items],
    traces: [...tables.traces.items],
    trays: [...tables.trays.items],
    daysSeen: [...daysSeen.list],
    items: items.stored(),
  };
}
