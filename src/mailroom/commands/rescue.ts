// Rescue: wanted messages out of Junk into the Inbox and, where asked, what sent them made safe. One command.
import { filled } from '../../core/data/rows';
import { contactAddresses, newContact } from '../../core/contacts/contact';
import { placedNow } from '../state/retention';
import { domainOf } from '../../core/mail/address';
import type { DryRunChange } from '../../core/line/dryRun';
import { normalAddress } from '../../core/senders/normal';
import { sameEntry, type Entry } from '../../core/senders/register';
import { type SetupEdit, edited } from '../../core/line/setupEdit';
import type { Selection } from '../border/views';
import { bit } from '../state/columns';
import { changesBetween } from '../search/candidates';
import { mostMarked } from './acts';
import { type EditResult } from './changeSetup';
import { doneBefore } from './once';
import { selected } from '../search/selection';
import type { MailState, Loading, Logged } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Viewing, Searching, Asking, Sorting } from '../search/searching';
import type { Committing } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import { didTo, messages } from '../../core/text/sentences';
import type { Tabled } from '../search/indexed';

/** What is safe after a rescue: nothing more than the messages, their senders, domains, or mailing lists. */
export type FromNowOn = 'this' | 'sender' | 'domain' | 'list';

/** The entries, and contacts where asked, that a rescue makes: one for each sender, domain or list of the messages. */
function rescueEdits(
  mailbox: Pick<MailState, 'setup' | 'now'> & Pick<Stored, 'envelopes'>,
  ids: Int32Array,
  fromNowOn: FromNowOn,
  contact: boolean,
  name: string,
): SetupEdit[] {
  if (fromNowOn === 'this') return [];
  const kind = fromNowOn === 'sender' ? 'address' : fromNowOn;
  const { setup, envelopes } = mailbox;
  const out = new Map<string, SetupEdit[]>();
  for (const id of ids) {
    const { from, listId, subject } = envelopes.get(id);
    const address = normalAddress(from.address);
    const value = { sender: address, domain: domainOf(address), list: listId }[fromNowOn];
    if (!value || out.has(value)) continue;
    const edits: SetupEdit[] = [];
    const old = sameEntry(setup.register, kind, value);
    if (old?.standing !== 'safe') {
      const newId = old?.id ?? `${name}-${out.size}`;
      const why = `Rescued “${subject.slice(0, 200)}”`;
      const item: Entry = { id: newId, kind, value, standing: 'safe', since: mailbox.now(), why };
      edits.push({ list: 'register', id: item.id, item });
    }
    if (fromNowOn === 'sender' && contact && !contactAddresses(setup.contacts).has(address)) {
      const newId = `${name}-${out.size}-contact`;
      edits.push({ list: 'contacts', id: newId, item: newContact(newId, from.name, address) });
    }
    out.set(value, edits);
  }
  return [...out.values()].flat();
}

/** Rescued messages, and what the line took from the same senders and gives back, as the columns of one change. */
function changeOf(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'now' | 'daysSeen'>,
  ids: Int32Array,
  back: readonly DryRunChange[],
) {
  const { columns, tables } = mailbox;
  const returned = new Map(back.map((change) => [change.id, change]));
  const all = Int32Array.from([...ids, ...returned.keys()]).sort();
  const teaches = new Set(ids.slice(-mostMarked));
  const after: Columns = {
    place: filled(Uint16Array, all, (id) => tables.placeIndex(returned.get(id)?.to ?? 'inbox')),
    placedAt: placedNow(mailbox),
    bits: filled(Uint8Array, all, (id) => {
      if (returned.has(id)) return columns.bits[id];
      const bits = columns.bits[id] | bit.byHand;
      return teaches.has(id) ? (bits | bit.markedGood) & ~bit.markedJunk : bits;
    }),
    trace: filled(Uint32Array, all, (id) => {
      const change = returned.get(id);
      return change ? tables.traces.add(change.trace()) : columns.trace[id];
    }),
  };
  return { ids: all, after };
}

/** Rescues messages. What is in the Inbox already is left out; undone as one. */
export async function rescue(
  mailbox: MailState &
    Pick<Stored, 'envelopes'> &
    Pick<Loading, 'journalReady' | 'ready'> &
    Pick<Logged, 'heads' | 'commands'> &
    Correspondents &
    Judging &
    Viewing &
    Pick<Searching, 'finding' | 'redundancy'> &
    Asking &
    Tabled &
    Sorting &
    Committing,
  command: string,
  selection: Selection,
  fromNowOn: FromNowOn,
  contact: boolean,
): Promise<EditResult> {
  const before = await doneBefore(mailbox, command);
  if (before) return { ok: true, receipt: before };
  await mailbox.readyToSort(mailbox.setup);
  const { columns, tables, setup } = mailbox;
  const inbox = tables.placeIndex('inbox');
  const ids = (await selected(mailbox, selection)).filter((id) => columns.place[id] !== inbox);
  if (ids.length === 0) return { ok: true, receipt: { seq: null, count: 0, says: 'Nothing to rescue' } };
  const edits = rescueEdits(mailbox, ids, fromNowOn, contact, `rescue-${command}`);
  const next = edited(setup, edits);
  if (!next.ok) return { ok: false, error: next.error };
  const mine = new Set(ids);
  const back = edits.length
    ? changesBetween(mailbox, setup, next.setup).filter((c) => !mine.has(c.id) && c.from === 'junk' && c.to !== c.from)
    : [];
  const subject = ids.length === 1 ? mailbox.envelopes.get(ids[0]).subject : null;
  const safe = edits.flatMap((edit) => (edit.list === 'register' && edit.item ? [edit.item.value] : []));
  const says = [
    didTo('Rescued', ids.length, subject, ''),
    back.length ? `, and ${messages(back.length)} more` : '',
    safe.length ? `; ${safe.slice(0, 3).join(', ')}${safe.length > 3 ? ' …' : ''} is Safe from now on` : '',
  ].join('');
  const seq = await mailbox.commit({
    command,
    by: 'you',
    says,
    ...changeOf(mailbox, ids, back),
    ...(edits.length ? { setup: edits } : {}),
  });
  return { ok: true, receipt: { seq, count: ids.length + back.length, says } };
}
