// The whole setup as one document, out and in, with the junk filter's model.
import { filled, numbersWhere } from '../../core/data/rows';
import { messages } from '../../core/text/sentences';
import { bit } from '../state/columns';
import { placedNow } from '../state/retention';
import { parseSetup } from '../../core/line/setup';
import { replacingEdits } from '../../core/line/setupEdit';
import { setupDifference, takeUp, type TakenUp } from '../../core/line/takingUp';
import type { SetupRead } from '../border/outcome';
import { expunged } from '../state/internedTables';
import { type EditResult } from './changeSetup';
import { doneBefore } from './once';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';

/** The folders in which mail stands, and the labels that it bears. */
function inUse({ columns, tables }: Pick<MailState, 'columns' | 'tables'>) {
  const places = new Set<number>();
  const sets = new Set<number>();
  for (let id = 0; id < columns.count; id++) {
    if (columns.place[id] === expunged) continue;
    places.add(columns.place[id]);
    sets.add(columns.labels[id]);
  }
  const folders = new Set<string>();
  for (const place of places) if (tables.place(place).startsWith('folder:')) folders.add(tables.place(place).slice(7));
  return { folders, labels: new Set([...sets].flatMap((set) => tables.labelSets.items[set])) };
}

/** What of the mail changes with the setup: what stands in a folder that goes stands in the one of that name. */
function moved(mailbox: MailState, { folders, labels }: TakenUp): { ids: Int32Array; after: Columns } | null {
  const { columns, tables } = mailbox;
  const places = new Map(
    [...folders].map(([from, to]) => [tables.placeIndex(`folder:${from}`), tables.placeIndex(`folder:${to}`)]),
  );
  const relabelled = (set: number): number => {
    const its = tables.labelSets.items[set];
    return its.some((label) => labels.has(label))
      ? tables.labelSetIndex([...new Set(its.map((label) => labels.get(label) ?? label))])
      : set;
  };
  const sets = Array.from(tables.labelSets.items, (_, set) => relabelled(set));
  const ids = numbersWhere(
    columns.count,
    (id) =>
      columns.place[id] !== expunged &&
      (places.has(columns.place[id]) || sets[columns.labels[id]] !== columns.labels[id]),
  );
  if (ids.length === 0) return null;
  const placed = placedNow(mailbox);
  return {
    ids,
    after: {
      place: filled(Uint16Array, ids, (id) => places.get(columns.place[id]) ?? columns.place[id]),
      placedAt: filled(Float64Array, ids, (id) => (places.has(columns.place[id]) ? placed : columns.placedAt[id])),
      bits: filled(Uint8Array, ids, (id) => columns.bits[id] | (places.has(columns.place[id]) ? bit.byHand : 0)),
      labels: filled(Uint16Array, ids, (id) => sets[columns.labels[id]]),
    },
  };
}

const wrong = (error: string) => ({ ok: false as const, error: `This is no setup of Wide Sort: ${error}.` });

/** What a setup from a file would change here. */
export function readSetup(mailbox: Pick<MailState, 'setup' | 'columns' | 'tables'>, document: string): SetupRead {
  const read = parseSetup(document);
  if (!read.ok) return wrong(read.error);
  const taken = takeUp(mailbox.setup, read.setup, inUse(mailbox));
  return { ok: true, difference: setupDifference(mailbox.setup, taken.setup), kept: taken.kept };
}

/** Takes a setup up in place of the one here: one command, undone as one. */
export async function importSetup(
  mailbox: MailState & Pick<Loading, 'journalReady'> & Pick<Logged, 'heads' | 'commands'> & Committing,
  command: string,
  document: string,
): Promise<EditResult> {
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  const read = parseSetup(document);
  if (!read.ok) return { ...wrong(read.error), error: `${wrong(read.error).error} Nothing was changed.` };
  const taken = takeUp(mailbox.setup, read.setup, inUse(mailbox));
  const mail = moved(mailbox, taken);
  const count = mail?.ids.length ?? 0;
  const along = count ? `; ${messages(count)} went along to folders and labels of the same names` : '';
  const says = `Took up a setup from a file${along}`;
  const setup = replacingEdits(mailbox.setup, taken.setup);
  const seq = await mailbox.commit({ command, by: 'you', says, setup, ...mail });
  return { ok: true, receipt: { seq, count, says } };
}
