// Questions about senders: how much comes from whom, what becomes of it, how a list is left and what came after.
import { bothForms } from '../../core/senders/normal';
import { startOfMonth, subMonths } from 'date-fns';
import type { Address } from '../../core/mail/address';
import { foldSearch } from '../../core/text/fold';
import { siteOf } from '../../core/mail/site';
import { type LeftList } from '../../core/senders/leavingWays';
import { bit } from '../state/columns';
import type { MailState, Revised, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Readable } from '../reading/reader';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import { rowOf } from './row';
import {
  trendWeeks,
  type Sender,
  type SenderLine,
  type SenderOrder,
  type SenderReport,
  type SendersQuestion,
  type SenderWindow,
} from '../border/senderTable';
import { expunged } from '../state/internedTables';
import { placeTraits } from '../../core/mail/place';

const week = 7 * 86_400_000;
const mostLatest = 8;
const monthsBack = 12;
/** The newest messages of a sender in which a way to leave is looked for. */
const mostAsked = 6;

/** Which messages count for a sender: by the index of their place, neither junk nor thrown away nor unsent. */
function countedPlaces({ tables }: Pick<MailState, 'tables'>): Uint8Array {
  return Uint8Array.from(tables.places.items, (place) => Number(placeTraits(place).counted));
}

/** The sender of each message as the table has it: by address each its own, by domain those of one domain together. */
function groups(mailbox: Pick<Correspondents, 'senderIndex'>, by: Sender['by']): { of: Uint32Array; names: string[] } {
  const { senders } = mailbox.senderIndex;
  const names: string[] = [];
  const numbers = new Map<string, number>();
  const of = Uint32Array.from(senders, (sender) => {
    // A domain of the table is what somebody owns, with all below it, as a clear-out chooses it.
    const name = by === 'address' ? sender.address : siteOf(sender.domain);
    const number = numbers.get(name) ?? names.push(name) - 1;
    numbers.set(name, number);
    return number;
  });
  return { of, names };
}

interface SenderTable {
  lines: SenderLine[];
  notCounted: SenderWindow['notCounted'];
}

/** Every sender, unordered, and what counts for none. */
function table(mailbox: MailState & Correspondents, by: Sender['by']): SenderTable {
  const { columns, derived, people, setup } = mailbox;
  const index = mailbox.senderIndex.grow(columns.count);
  const { of, names } = groups(mailbox, by);
  const counted = countedPlaces(mailbox);
  const inbox = mailbox.tables.placeIndex('inbox');
  const now = mailbox.now();
  const lines = names.map((value): SenderLine => ({
    sender: { by, value },
    name: '',
    addresses: 0,
    messages: 0,
    inbox: 0,
    unread: 0,
    last: 0,
    bytes: 0,
    answered: 0,
    written: false,
    list: false,
    weeks: new Array<number>(trendWeeks).fill(0),
    left: false,
  }));
  const wrote = new Uint8Array(index.senders.length);
  const notCounted = { own: 0, elsewhere: 0, nameless: 0 };
  for (let id = 0; id < columns.count; id++) {
    const sender = index.of[id];
    if (derived.isOwn(id)) {
      const above = derived.parent(id);
      if (above !== null && !derived.isOwn(above) && counted[columns.place[above]] === 1)
        lines[of[index.of[above]]].answered++;
      if (columns.place[id] !== expunged) notCounted.own++;
      continue;
    }
    if (counted[columns.place[id]] !== 1) {
      if (columns.place[id] !== expunged) notCounted.elsewhere++;
      continue;
    }
    wrote[sender] = 1;
    const line = lines[of[sender]];
    line.messages++;
    if (columns.place[id] === inbox) line.inbox++;
    if (!(columns.bits[id] & bit.read)) line.unread++;
    const date = columns.date[id];
    if (date > line.last) line.last = date;
    line.bytes += index.sizes[id];
    line.list ||= derived.kind(id) === 'lists';
    const weeksAgo = Math.floor((now - date) / week);
    if (weeksAgo >= 0 && weeksAgo < trendWeeks) line.weeks[trendWeeks - 1 - weeksAgo]++;
  }
  const left = new Set(setup.left.map(({ address }) => address));
  for (const [number, { address, name }] of index.senders.entries()) {
    if (wrote[number] === 0) continue;
    const line = lines[of[number]];
    line.addresses++;
    if (name) line.name = name;
    line.written ||= address !== '' && people.wroteTo(address);
    line.left ||= left.has(address);
  }
  notCounted.nameless = lines.reduce((n, { sender, messages }) => (sender.value === '' ? n + messages : n), 0);
  return { lines: lines.filter(({ messages, sender }) => messages > 0 && sender.value !== ''), notCounted };
}

/** How much more came in the later half of the weeks than in the earlier one. */
export const trendOf = ({ weeks }: Pick<SenderLine, 'weeks'>): number =>
  weeks.reduce((sum, n, at) => sum + (at < trendWeeks / 2 ? -n : n), 0);

const keys: Record<SenderOrder, (line: SenderLine) => number | string> = {
  name: (line) => foldSearch(line.name || line.sender.value),
  messages: (line) => line.messages,
  inbox: (line) => line.inbox,
  unread: (line) => line.unread / line.messages,
  last: (line) => line.last,
  answered: (line) => line.answered + (line.written ? 0.5 : 0),
  size: (line) => line.bytes,
  trend: trendOf,
};

const sorts: Record<SendersQuestion['only'], (line: SenderLine) => boolean> = {
  all: () => true,
  lists: (line) => line.list,
  written: (line) => line.written,
  never: (line) => !line.written && line.answered === 0,
  quiet: (line) => line.unread === line.messages,
};

/** The table as one revision of the mailbox has it: scrolling through it counts nothing anew. */
const tables = new WeakMap<object, SenderTable & { revision: number; by: Sender['by'] }>();

async function tableOf(
  mailbox: MailState & Revised & Pick<Loading, 'ready'> & Correspondents,
  by: Sender['by'],
): Promise<SenderTable> {
  await mailbox.ready();
  const held = tables.get(mailbox);
  if (held?.revision === mailbox.revision && held.by === by) return held;
  const made = table(mailbox, by);
  tables.set(mailbox, { revision: mailbox.revision, by, ...made });
  return made;
}

/** A stretch of the table of senders. */
export async function senders(
  mailbox: MailState & Revised & Pick<Loading, 'ready'> & Correspondents,
  question: SendersQuestion,
  from: number,
  to: number,
): Promise<SenderWindow> {
  const words = foldSearch(question.words.trim());
  const { lines: all, notCounted } = await tableOf(mailbox, question.by);
  const lines = all.filter(
    (line) =>
      sorts[question.only](line) &&
      (words === '' || foldSearch(`${line.name} ${bothForms(line.sender.value)}`).includes(words)),
  );
  const key = keys[question.order];
  // Names begin with A, numbers with the largest, unless turned.
  const sign = (question.order === 'name') === question.turned ? -1 : 1;
  lines.sort((a, b) => {
    const [x, y] = [key(a), key(b)];
    const order = typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y));
    return sign * order || b.messages - a.messages || (a.sender.value < b.sender.value ? -1 : 1);
  });
  return {
    total: lines.length,
    messages: lines.reduce((n, line) => n + line.messages, 0),
    notCounted,
    from,
    lines: lines.slice(from, to),
  };
}

/** The messages that count for a sender, newest first. */
function messagesOf(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> & Pick<Correspondents, 'senderIndex'> & Viewing,
  sender: Sender,
): Int32Array {
  const { columns, derived, senderIndex, views } = mailbox;
  const is = senderIndex.grow(columns.count).matching(sender);
  const counted = countedPlaces(mailbox);
  return views.newestFirst.filter(
    (id) => is[senderIndex.of[id]] === 1 && counted[columns.place[id]] === 1 && !derived.isOwn(id),
  );
}

/** How a message’s list can be left: nothing where its bytes can’t be read. */
export const waysOf = async ({ reader }: Readable, id: number) => (await reader.one(id, 'leaving', undefined)) ?? [];

async function leavingOf(
  mailbox: Readable & Pick<Stored, 'envelopes'>,
  newestFirst: Int32Array,
): Promise<SenderReport['leaving']> {
  for (const message of newestFirst.subarray(0, mostAsked)) {
    const ways = await waysOf(mailbox, message);
    if (ways.length) return { message, listId: mailbox.envelopes.get(message).listId, ways };
  }
  return null;
}

/** What came of a list after it was left: how many, and when the last. */
function after(
  mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'> & Pick<Correspondents, 'senderIndex'>,
  list: LeftList,
): { after: number; latest: number | null } {
  const { columns, envelopes, senderIndex } = mailbox;
  const is = senderIndex.matching({ by: 'address', value: list.address });
  let [n, latest] = [0, 0];
  for (let id = 0; id < columns.count; id++) {
    if (columns.date[id] <= list.at || columns.place[id] === expunged) continue;
    const its = list.listId ? envelopes.get(id).listId === list.listId : is[senderIndex.of[id]] === 1;
    if (!its) continue;
    n++;
    latest = Math.max(latest, columns.date[id]);
  }
  return { after: n, latest: n ? latest : null };
}

/** One sender looked at; null where nothing of it is left. */
export async function senderReport(
  mailbox: MailState & Revised & Stored & Readable & Pick<Loading, 'ready'> & Correspondents & Judging & Viewing,
  sender: Sender,
): Promise<SenderReport | null> {
  const line = (await tableOf(mailbox, sender.by)).lines.find((one) => one.sender.value === sender.value);
  if (!line) return null;
  const { columns, senderIndex, setup } = mailbox;
  const ids = messagesOf(mailbox, sender);
  const first = startOfMonth(subMonths(mailbox.now(), monthsBack - 1));
  const months = Array.from({ length: monthsBack }, (_, at) => {
    const month = new Date(first.getFullYear(), first.getMonth() + at, 1);
    return { month: monthOf(month), messages: 0, unread: 0 };
  });
  for (const id of ids) {
    const date = new Date(columns.date[id]);
    const at = (date.getFullYear() - first.getFullYear()) * 12 + date.getMonth() - first.getMonth();
    if (at < 0 || at >= monthsBack) continue;
    months[at].messages++;
    if (!(columns.bits[id] & bit.read)) months[at].unread++;
  }
  const is = senderIndex.matching(sender);
  const its = new Set(senderIndex.senders.flatMap(({ address }, number) => (is[number] ? [address] : [])));
  return {
    line,
    months,
    latest: [...ids.subarray(0, mostLatest)].map((id) => rowOf(mailbox, id)),
    leaving: await leavingOf(mailbox, ids),
    left: setup.left.filter(({ address }) => its.has(address)).map((list) => ({ list, ...after(mailbox, list) })),
  };
}

/** A month as 2026-09, local time. */
export const monthOf = (date: Date): string => `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, '0')}`;

/** Who wrote to the person and is called so, those who write most first. */
export async function people(
  mailbox: MailState & Revised & Pick<Loading, 'ready'> & Correspondents,
  typed: string,
  most: number,
): Promise<Address[]> {
  const words = foldSearch(typed.trim());
  const found = (await tableOf(mailbox, 'address')).lines.filter(({ name, sender }) => {
    const text = foldSearch(`${name} ${sender.value}`);
    return words === '' || text.startsWith(words) || text.includes(` ${words}`) || text.includes(`@${words}`);
  });
  return found
    .sort((a, b) => b.messages - a.messages)
    .slice(0, most)
    .map(({ name, sender }) => ({ name, address: sender.value }));
}
