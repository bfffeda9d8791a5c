// The meta record: what of the mailbox is no message's, and how far the state packs go.
import type { Meta } from '../storage/stateRecords';
import type { DaysSeen } from './daysSeen';
import { Tables } from './internedTables';

/** What of it the mailbox holds just as it is stored. */
type Own = Pick<Meta, 'setup' | 'cursor' | 'postOn' | 'agedAt' | 'remindedAt' | 'erasedTo'> & { tables: Tables };

/** Takes over into a mailbox what the record says. */
export function takeUpMeta(mailbox: Own & { readonly daysSeen: DaysSeen }, meta: Meta): void {
  const { setup, cursor, postOn, agedAt, remindedAt, erasedTo } = meta;
  const own: Own = { setup, cursor, postOn, agedAt, remindedAt, erasedTo, tables: new Tables(meta) };
  Object.assign(mailbox, own);
  mailbox.daysSeen.takeUp(meta.daysSeen);
}

/** What the record says of a mailbox in which `count` messages count. */
export function metaOf(
  mailbox: Readonly<Own> & Pick<Meta, 'seq' | 'first'> & { readonly daysSeen: DaysSeen },
  count: number,
): Meta {
  const { setup, cursor, postOn, agedAt, remindedAt, erasedTo, seq, first, tables, daysSeen } = mailbox;
  return {
    ...{ setup, cursor, postOn, agedAt, remindedAt, erasedTo, seq, first, count },
    places: [...tables.places.items],
    labelSets: [...tables.labelSets.items],
    traces: [...tables.traces.items],
    trays: [...tables.trays.items],
    daysSeen: [...daysSeen.list],
  };
}
