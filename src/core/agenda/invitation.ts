// Invitations (RFC 5546, iTIP): what a calendar that came by mail means for what is here. It decides nothing by itself: it
// says what taking it up would come to, or what is wrong with it.
import { addressKey, type Address } from '../mail/address';
import { anchorOf, itemTitle, type ChangedOccurrence, type Invited, type InvitedAnswer, type Item } from './item';
import type { ReadCalendar } from './readCalendar';
import { isDay, momentOf, wallOfMoment, wallText, type When } from './wallTime';

/** What a calendar that came by mail means. `item`: as it came; `next`: what would be here if it were taken up. */
export type Meaning =
  /** The person is invited; `changed`: to something that was here before in another version. */
  | { is: 'invitation'; item: Item; next: Item; changed: boolean; me: Address | null; answered: InvitedAnswer }
  /** It, or one of its series (`on`), does not take place. */
  | { is: 'cancelled'; item: Item; next: Item; on: string | null }
  /** Somebody who was invited has answered. */
  | { is: 'answer'; item: Item; next: Item; who: Invited; from: string; already: boolean }
  /** Something to be put into the Agenda, without an invitation. */
  | { is: 'shown'; item: Item; next: Item; here: boolean }
  /** What is here is newer. */
  | { is: 'old'; item: Item }
  /** It says nothing that can be gone by. */
  | { is: 'wrong'; says: string };

/** What is known of where it came from and what is here. */
export interface Circumstances {
  /** What is here under its UID; null where nothing is. */
  here: Item | null;
  own: (address: string) => boolean;
  /** Who sent the message. */
  sender: string;
  /** The Message-ID of the message; empty where it has none. */
  messageId: string;
  /** The address by which it came; null where that is none of the person's. */
  account: Address | null;
  now: number;
}

const same = (a: string, b: string): boolean => addressKey(a) === addressKey(b);

/** Which of a series something is about, by the clock of the series. */
function onOf(only: When, series: Item): string | null {
  const anchor = anchorOf(series);
  if (!anchor) return null;
  if (isDay(anchor) || isDay(only)) return isDay(anchor) ? only.at.slice(0, 10) : `${only.at}T${anchor.at.slice(11)}`;
  if (only.zone === anchor.zone || only.zone === null || anchor.zone === null) return only.at;
  return wallText(wallOfMoment(momentOf(only, anchor.zone), anchor.zone), false);
}

/** An item that is about one of a series, as that one. */
function asOccurrence(item: Item, on: string, cancelled: boolean): ChangedOccurrence {
  const { title, place, note, end, sequence } = item;
  return { on, title, place, note, start: item.start ?? { at: on, zone: null }, end, cancelled, sequence };
}

/** A series with one of it as it is now. */
export const withOccurrence = (series: Item, one: ChangedOccurrence): Item => ({
  ...series,
  changed: [...series.changed.filter(({ on }) => on !== one.on), one],
});

/** Whether something is older than what is here: by its number, then by when it was written (RFC 5546, section 2.1.5). */
const isOlder = (item: Item, here: Item): boolean =>
  item.sequence < here.sequence || (item.sequence === here.sequence && item.edited < here.edited && !item.only);

/** What here keeps of its own when a newer version comes. */
function takenUp(item: Item, { here, messageId }: Circumstances): Item {
  const messages = [...new Set([...(here?.messages ?? []), ...(messageId ? [messageId] : [])])];
  return {
    ...item,
    messages,
    reminder: here ? here.reminder : item.reminder,
    made: here?.made ?? item.made,
    done: here?.done ?? item.done,
  };
}

function invited(item: Item, given: Circumstances): Meaning {
  const { here, own, account } = given;
  if (here?.organizer && item.organizer && !same(here.organizer.address, item.organizer.address))
    return {
      is: 'wrong',
      says: `“${itemTitle(here)}” was made by ${here.organizer.address}: ${item.organizer.address} can’t change it.`,
    };
  if (item.organizer && own(item.organizer.address)) return { is: 'wrong', says: 'It is an invitation of your own.' };
  if (here && isOlder(item, here)) return { is: 'old', item };
  const mine = item.invited.find(({ address }) => own(address));
  const me = mine ? { name: mine.name, address: mine.address } : account;
  const before = here?.invited.find(({ address }) => me && same(address, me.address));
  // A change of the hour asks anew; the same version again does not.
  const answered = before && here && here.sequence === item.sequence ? before.answer : (mine?.answer ?? 'needs-action');
  const changed = here !== null && here.sequence < item.sequence;
  if (item.only && here && !here.only) {
    const on = onOf(item.only, here);
    if (on !== null)
      return {
        is: 'invitation',
        item,
        next: withOccurrence(here, asOccurrence(item, on, false)),
        changed: true,
        me,
        answered,
      };
  }
  const next = takenUp(item, given);
  const kept = me && (mine || answered !== 'needs-action') ? withAnswer(next, me, answered, before?.at ?? 0) : next;
  return { is: 'invitation', item, next: kept, changed, me, answered };
}

function cancelled(item: Item, { here, own }: Circumstances): Meaning {
  if (!here) return { is: 'wrong', says: 'It calls something off that is not in your Agenda.' };
  const { organizer } = here;
  if (!organizer) return { is: 'wrong', says: `“${itemTitle(here)}” is your own: nobody else can call it off.` };
  if (own(organizer.address))
    return { is: 'wrong', says: `“${itemTitle(here)}” is yours: nobody else can call it off.` };
  if (item.organizer && !same(item.organizer.address, organizer.address))
    return {
      is: 'wrong',
      says: `“${itemTitle(here)}” was made by ${organizer.address}: ${item.organizer.address} can’t call it off.`,
    };
  if (item.sequence < here.sequence) return { is: 'old', item };
  const on = item.only && !here.only ? onOf(item.only, here) : null;
  if (on !== null) {
    const was = here.changed.find((one) => one.on === on);
    const one =
      was ?? asOccurrence({ ...here, start: { at: on, zone: anchorOf(here)?.zone ?? null }, end: null }, on, true);
    return {
      is: 'cancelled',
      item,
      next: withOccurrence(here, { ...one, cancelled: true, sequence: item.sequence }),
      on,
    };
  }
  return {
    is: 'cancelled',
    item,
    next: { ...here, status: 'cancelled', sequence: item.sequence, edited: item.edited },
    on: null,
  };
}

function answered(item: Item, { here, sender, now }: Circumstances): Meaning {
  const who = item.invited.at(0);
  if (!who || item.invited.length !== 1) return { is: 'wrong', says: 'It is an answer, but not of one person.' };
  if (!here) return { is: 'wrong', says: 'It answers an invitation that is not in your Agenda.' };
  const known = here.invited.find(({ address }) => same(address, who.address));
  if (!known) return { is: 'wrong', says: `${who.address} answers “${itemTitle(here)}”, but was not invited.` };
  if (!same(sender, who.address))
    return { is: 'wrong', says: `It answers in the name of ${who.address}, but ${sender || 'somebody else'} sent it.` };
  if (item.sequence < here.sequence) return { is: 'old', item };
  // What was said later counts, in whatever order it comes.
  const at = Math.min(item.edited, now);
  if (known.at > at) return { is: 'old', item };
  const next = withAnswer(here, known, who.answer, at);
  return {
    is: 'answer',
    item,
    next,
    who: { ...who, at },
    from: known.name || known.address,
    already: known.answer === who.answer,
  };
}

/** An item with what somebody has answered. Who was not invited by name is added. */
export function withAnswer(item: Item, { name, address }: Address, answer: InvitedAnswer, at: number): Item {
  const isThere = item.invited.some((one) => same(one.address, address));
  const person: Invited = { name, address, answer, at };
  return {
    ...item,
    invited: isThere
      ? item.invited.map((one) => (same(one.address, address) ? { ...one, answer, at } : one))
      : [...item.invited, person],
  };
}

/** What a calendar that came by mail means. */
export function meaningOf(
  { items, method, remarks }: Pick<ReadCalendar, 'items' | 'method' | 'remarks'>,
  given: Circumstances,
): Meaning {
  const [item, second] = items;
  if (!item) return { is: 'wrong', says: remarks[0]?.says ?? 'No appointment is in it.' };
  if (method !== null && method !== 'PUBLISH' && second)
    return { is: 'wrong', says: 'It is about several things at once, which no invitation may be (RFC 5546).' };
  switch (method) {
    case 'REQUEST':
    case 'ADD':
      return invited(item, given);
    case 'CANCEL':
      return cancelled(item, given);
    case 'REPLY':
      return answered(item, given);
    case 'COUNTER':
    case 'DECLINECOUNTER':
    case 'REFRESH':
      return { is: 'wrong', says: 'It proposes another time, or asks for news: write to whoever sent it.' };
    default: {
      const { here } = given;
      return here && isOlder(item, here)
        ? { is: 'old', item }
        : { is: 'shown', item, next: takenUp(item, given), here: here !== null };
    }
  }
}

/** How many of the invited answered what: `3 accepted, 1 declined, 2 have not answered`. */
export function answerWords(invited: readonly Invited[]): string {
  const n = (answer: InvitedAnswer): number => invited.filter((one) => one.answer === answer).length;
  const parts = [
    [n('accepted'), 'accepted'],
    [n('tentative'), 'tentative'],
    [n('declined'), 'declined'],
  ] as const;
  const open = n('needs-action');
  return [
    ...parts.filter(([many]) => many > 0).map(([many, word]) => `${many} ${word}`),
    ...(open > 0 ? [`${open} ${open === 1 ? 'has' : 'have'} not answered`] : []),
  ].join(', ');
}
