// Invitations as a message shows them: what they mean, what is in the way at that time, and what a message could become.
import { answerWords, meaningOf, type Meaning } from '../../core/agenda/invitation';
import { timesWords } from '../../core/agenda/inviting';
import { itemTitle, type Item } from '../../core/agenda/item';
import { occurrencesOf, type Occurrence } from '../../core/agenda/occurrences';
import { isDay, momentOf, timeIn, type When } from '../../core/agenda/wallTime';
import { recurrenceWords } from '../../core/agenda/recurrenceWords';
import { bareSubject } from '../../core/conversations/bareSubject';
import { AccountIndex } from '../../core/mail/account';
import { dayOf, exactTime } from '../../core/text/time';
import type { ForItem, SeenInvitation } from '../border/agenda';
import type { Readable } from '../reading/reader';
import type { MailState } from '../state/mailState';
import { expunged } from '../state/internedTables';
import { hereOf, type DatedSource } from './dated';

type Source = DatedSource & Readable;

const mostClashes = 5;
/** So far ahead what is in the way of a series is looked for. */
const ahead = 92 * 86_400_000;

/** What a message’s calendar means now; null where it has none, or the message is gone. */
export async function meaning(
  mailbox: Source,
  id: number,
): Promise<{ meaning: Meaning; remarks: string[]; me: ReturnType<typeof accountOf> } | null> {
  if (id < 0 || id >= mailbox.columns.count || mailbox.columns.place[id] === expunged) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const envelope = mailbox.envelopes.get(id);
  const read = await mailbox.reader.one(id, 'calendar', mailbox.now());
  if (!read) return null;
  const own = new AccountIndex(mailbox.setup.accounts);
  const uid = read.items[0]?.uid;
  const me = accountOf(mailbox, id);
  return {
    me,
    remarks: read.remarks.map(({ says }) => says),
    meaning: meaningOf(read, {
      here: uid === undefined ? null : (mailbox.items.all.get(uid) ?? null),
      own: (address) => own.isOwn(address),
      sender: envelope.from.address,
      messageId: envelope.messageId,
      account: me,
      now: mailbox.now(),
    }),
  };
}

/** The account by which a message came, as a person; null where it came by none. */
function accountOf({ setup, derived }: Pick<MailState, 'setup' | 'derived'>, id: number) {
  const account = setup.accounts.at(derived.account(id));
  return derived.account(id) >= 0 && account ? { name: account.name, address: account.address } : null;
}

/** Appointments that are in the way of one: at the same time, and not called off or declined. */
export function clashesOf(mailbox: DatedSource, item: Item): Occurrence[] {
  const here = hereOf(mailbox);
  const own = new AccountIndex(mailbox.setup.accounts);
  const now = mailbox.now();
  const times = occurrencesOf(item, now, Infinity, here).filter(
    ({ start }) => start < now + ahead || item.repeats === null,
  );
  const busy = (one: Item): boolean =>
    one.kind === 'appointment' &&
    one.uid !== item.uid &&
    one.status !== 'cancelled' &&
    one.invited.find(({ address }) => own.isOwn(address))?.answer !== 'declined' &&
    !one.kept.some((line) => /^TRANSP:TRANSPARENT$/i.test(line));
  const out: Occurrence[] = [];
  if (times.length === 0) return out;
  const [from, to] = [times[0].start, Math.max(...times.map(({ end }) => end))];
  for (const one of mailbox.items.all.values()) {
    if (!busy(one)) continue;
    for (const its of occurrencesOf(one, from, to + 1, here))
      // What takes whole days leaves the hours of them free, unless both do.
      if (
        times.some(
          (time) =>
            time.wholeDay === its.wholeDay &&
            time.start < Math.max(its.end, its.start + 1) &&
            its.start < Math.max(time.end, time.start + 1),
        )
      )
        out.push(its);
  }
  return out.sort((a, b) => a.start - b.start);
}

const heads = {
  invitation: 'You are invited',
  cancelled: 'This does not take place',
  shown: 'An appointment came along',
  old: 'What is in your Agenda is newer than this',
} as const;

function saysOf(meaning: Meaning): string {
  switch (meaning.is) {
    case 'wrong':
      return meaning.says;
    case 'invitation':
      return meaning.changed ? 'This is otherwise now' : heads.invitation;
    case 'answer': {
      const { who, from, already } = meaning;
      const does = {
        accepted: 'comes',
        tentative: 'may come',
        declined: 'does not come',
        'needs-action': 'has not answered',
      }[who.answer];
      return `${from} ${does}${already ? ', as it stands in your Agenda' : ''}`;
    }
    case 'shown':
      return meaning.item.kind === 'task' ? 'A task came along' : heads.shown;
    default:
      return heads[meaning.is];
  }
}

/** What a message’s calendar means, as the message shows it; null where it has none. */
export async function seenInvitation(mailbox: Source, id: number): Promise<SeenInvitation | null> {
  await mailbox.ready();
  const read = await meaning(mailbox, id);
  if (!read) return null;
  const { meaning: its, remarks, me } = read;
  const item = 'item' in its ? its.item : null;
  const here = item ? (mailbox.items.all.get(item.uid) ?? null) : null;
  const clashes = item && (its.is === 'invitation' || its.is === 'shown') ? clashesOf(mailbox, item) : [];
  const one = its.is === 'cancelled' && its.on !== null ? its.next.changed.find(({ on }) => on === its.on) : undefined;
  const times = one ?? item ?? { start: null, end: null };
  return {
    is: its.is,
    says: saysOf(its),
    title: item ? itemTitle(item) : '',
    when: whenWords(times.start, times.end, hereOf(mailbox)),
    place: item?.place ?? '',
    note: item?.note ?? '',
    repeats: item?.repeats ? recurrenceWords(item.repeats) : '',
    by: item?.organizer ? item.organizer.name || item.organizer.address : '',
    invited: item && its.is !== 'answer' ? answerWords(item.invited) : '',
    mine: its.is === 'invitation' ? its.answered : null,
    as: its.is === 'invitation' ? (its.me?.address ?? me?.address ?? '') : '',
    here:
      here !== null &&
      'next' in its &&
      JSON.stringify({ ...here, edited: 0, messages: [] }) === JSON.stringify({ ...its.next, edited: 0, messages: [] }),
    uid: here?.uid ?? null,
    clashes: shown(clashes),
    clashesInAll: clashes.length,
    remarks: remarks.slice(0, 20),
  };
}

/** When, by the clock of the person, and by its own where that is another. */
function whenWords(start: When | null, end: When | null, here: string): string {
  if (!start) return end ? `due ${whenWords(end, null, here)}` : '';
  if (isDay(start) || start.zone === null) return timesWords(start, end);
  const local = (when: When): When => ({ ...timeIn(momentOf(when, here), here), zone: null });
  const own = start.zone === here ? '' : `, which is ${timesWords(start, end)}`;
  return `${timesWords(local(start), end && local(end))}${own}`;
}

const shown = (clashes: readonly Occurrence[]): SeenInvitation['clashes'] =>
  clashes.slice(0, mostClashes).map(({ item: { uid }, title, start, wholeDay }) => ({
    uid,
    title,
    when: wholeDay ? dayOf(start) : exactTime(start),
  }));

/** The first few appointments that are in the way of one. */
export const inTheWay = async (mailbox: DatedSource, item: Item): Promise<SeenInvitation['clashes']> =>
  item.kind === 'appointment' && item.start ? shown(clashesOf(mailbox, item)) : [];

/** What a message can become: its title, its days and hours, and what is made of it already; null where it is gone. */
export async function forItem(mailbox: Source, id: number): Promise<ForItem | null> {
  if (id < 0 || id >= mailbox.columns.count || mailbox.columns.place[id] === expunged) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const { subject, messageId } = mailbox.envelopes.get(id);
  const dates = await mailbox.reader.one(id, 'dates', {
    subject,
    written: mailbox.columns.date[id] || mailbox.now(),
    now: mailbox.now(),
  });
  return {
    title: bareSubject(subject),
    messageId,
    dates: dates ?? [],
    made: await madeOf(mailbox, id),
  };
}

/** What is made of a message already: asked of every message that is opened, so nothing of it is read. */
export async function madeOf(mailbox: DatedSource, id: number): Promise<ForItem['made']> {
  if (id < 0 || id >= mailbox.columns.count || mailbox.columns.place[id] === expunged) return [];
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  return mailbox.items
    .of(mailbox.envelopes.get(id).messageId)
    .flatMap((uid) => mailbox.items.all.get(uid) ?? [])
    .map((item) => ({ uid: item.uid, kind: item.kind, title: itemTitle(item) }));
}
