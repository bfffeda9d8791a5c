// A task or an appointment as it is being filled in: what it would be, what it lacks, and who would be told.
import { useState } from 'react';
import { occurrenceOf, toldOf } from '../../core/agenda/itemActs';
import { withOccurrence } from '../../core/agenda/invitation';
import { itemTrouble, type Item } from '../../core/agenda/item';
import type { Setup } from '../../core/line/setup';
import { AccountIndex } from '../../core/mail/account';
import { addressKey } from '../../core/mail/address';
import { readRecipients, typedAddress, type TypedRecipients } from '../../core/writing/recipient';
import type { ItemDraft } from './itemDraft';

/** The draft as it is edited: one of a series stands for itself. */
function itemOf({ item, on }: ItemDraft): Item {
  if (on === null) return item;
  const { title, place, note, start, end } = occurrenceOf(item, on);
  return { ...item, title, place, note, start, end, repeats: null };
}

/** Those who are invited, as they would be typed: all but who invites. */
const typedInvited = ({ invited, organizer }: Item): string =>
  invited
    .filter(({ address }) => address !== organizer?.address)
    .map(typedAddress)
    .join(', ');

/** With the people that were typed; who was invited before keeps their answer. */
function withPeople(item: Item, { named }: TypedRecipients, { accounts }: Setup): Item {
  if (item.kind === 'task' || named.length === 0) return { ...item, organizer: null, invited: [] };
  const organizer = accounts.find(({ address }) => address === item.organizer?.address) ?? accounts.at(0);
  const known = new Map(item.invited.map((one) => [addressKey(one.address), one]));
  return {
    ...item,
    organizer: organizer ? { name: organizer.name, address: organizer.address } : null,
    invited: named.map((who) => known.get(addressKey(who.address)) ?? { ...who, answer: 'needs-action', at: 0 }),
  };
}

/** What is wrong with what is filled in, in words; null where nothing is. */
function troubleOf(item: Item, next: Item, people: TypedRecipients): string | null {
  if (item.title.trim() === '') return 'Give it a title.';
  const [wrong] = item.kind === 'appointment' ? people.wrong : [];
  if (wrong) return `“${wrong.text}” is no address: ${wrong.reason}.`;
  return itemTrouble(next);
}

export function useItemForm(draft: ItemDraft, setup: Setup) {
  const { before, on } = draft;
  const [item, setItem] = useState<Item>(() => itemOf(draft));
  const [wrong, setWrong] = useState<string | null>(null);
  const [invited, setInvited] = useState(() => typedInvited(item));
  const own = new AccountIndex(setup.accounts);
  /** Who invites, where that is somebody else. */
  const foreign = before?.organizer && !own.isOwn(before.organizer.address) ? before.organizer : null;
  const people = readRecipients(invited);
  const tidy = { ...(foreign ? item : withPeople(item, people, setup)), title: item.title.trim() };
  /** The item as it would be saved, edited at a moment. */
  const whole = (edited: number): Item => {
    if (on === null || !before) return { ...tidy, edited };
    const { title, place, note, start, end } = tidy;
    const one = occurrenceOf(before, on);
    return { ...withOccurrence(before, { ...one, title, place, note, start: start ?? end ?? one.start, end }), edited };
  };
  const next = whole(item.edited);
  const told = toldOf(before, next, (address) => own.isOwn(address)).told;
  return {
    item,
    invited,
    foreign,
    set: (part: Partial<Item>) => setItem((one) => ({ ...one, ...part })),
    setInvited,
    setWrong,
    whole,
    trouble: wrong ?? troubleOf(item, on === null ? next : item, people),
    /** How many people would be told of it by mail. */
    tells: new Set(told.flatMap(({ to }) => to.map(({ address }) => addressKey(address)))).size,
  };
}

export type ItemForm = ReturnType<typeof useItemForm>;
