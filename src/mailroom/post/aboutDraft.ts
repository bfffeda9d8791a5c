// What is said of a draft while it is written: what may be regretted, and who could be meant.
import { AccountIndex } from '../../core/mail/account';
import { namedAddresses } from '../../core/contacts/contact';
import { addressKey, domainOf, type Address } from '../../core/mail/address';
import { skeleton } from '../../core/senders/lookAlike';
import { normalAddress, unicodeDomain } from '../../core/senders/normal';
import { mayBeMeant, readRecipients } from '../../core/writing/recipient';
import { regretsOf, type Recipient } from '../../core/writing/regrets';
import type { DraftAbout, DraftContent } from '../border/drafts';
import { rowOf } from '../questions/row';
import type { Correspondents } from '../state/correspondents';
import type { Loading } from '../state/mailState';
import { newerThan, type Drafting } from './drafts';

type Knowing = Drafting & Pick<Correspondents, 'people'> & Pick<Loading, 'ready'>;

/** Whose domain an address seems to imitate; null where it does not, or is known itself. */
function imitated({ people }: Pick<Correspondents, 'people'>, address: string): string | null {
  const domain = domainOf(normalAddress(address));
  const { domains, byLook } = people.imitable;
  if (!domain || domains.has(domain)) return null;
  return byLook.get(skeleton(unicodeDomain(domain))) ?? null;
}

/** What may be regretted about a draft. `manyPeople`: from so many recipients on it is said how many they are. */
export async function aboutDraft(mailbox: Knowing, content: DraftContent, manyPeople: number): Promise<DraftAbout> {
  await mailbox.ready();
  const { columns, envelopes, people } = mailbox;
  const answers = content.how === 'reply' || content.how === 'reply all';
  const answered = answers ? content.answers.filter((id) => id < columns.count) : [];
  const later = answered.length ? newerThan(mailbox, answered[0]) : [];
  const newest = later.at(-1);
  const envelope = answered.length ? envelopes.get(answered[0]) : null;
  const theirs = new Set(
    envelope
      ? [envelope.from, ...envelope.replyTo, ...envelope.to, ...envelope.cc].map((one) => addressKey(one.address))
      : [],
  );
  const own = people.own;
  const recipients: Recipient[] = [content.to, content.cc, content.bcc]
    .flatMap((field) => readRecipients(field).named)
    .map((one) => {
      const key = normalAddress(one.address);
      const known = theirs.has(addressKey(one.address)) || people.knows(key) || own.includes(addressKey(one.address));
      return { ...one, known, looksLike: known ? null : imitated(mailbox, one.address) };
    });
  const index = new AccountIndex(mailbox.setup.accounts);
  const wasHidden =
    envelope !== null &&
    !envelope.listId &&
    ![...envelope.to, ...envelope.cc, envelope.from].some((one) => index.isOwn(one.address));
  return {
    regrets: regretsOf({ content, recipients, own, newer: later.length, manyPeople, wasHidden }),
    newer: later.length,
    newest: newest === undefined ? null : rowOf(mailbox, newest),
  };
}

/** Who could be meant by what was typed: contacts and those who were written to, most often and latest first. */
export async function recipientsLike(mailbox: Knowing, typed: string, most: number): Promise<Address[]> {
  await mailbox.ready();
  if (typed.trim() === '') return [];
  const found = new Map<string, { address: Address; weight: number }>();
  for (const { address, weight } of mailbox.people.recipients()) {
    if (!mayBeMeant(address, typed)) continue;
    found.set(addressKey(address.address), { address, weight });
  }
  for (const { name, address } of namedAddresses(mailbox.setup.contacts)) {
    if (!mayBeMeant({ name, address }, typed)) continue;
    const old = found.get(addressKey(address));
    found.set(addressKey(address), {
      address: { name: name || old?.address.name || '', address },
      weight: (old?.weight ?? 0) + 1,
    });
  }
  return [...found.values()]
    .sort(
      (a, b) =>
        b.weight - a.weight || (a.address.name || a.address.address).localeCompare(b.address.name || b.address.address),
    )
    .slice(0, most)
    .map(({ address }) => address);
}
