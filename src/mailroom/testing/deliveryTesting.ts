// Help for the tests of delivery: a mailbox with trays, and mail that comes into it.
import type { DeliverySettings } from '../../core/delivery/settings';
import { traySchema, type Tray } from '../../core/delivery/tray';
import { parseEnvelope } from '../../core/mail/envelope';
import { changeSetup } from '../commands/changeSetup';
import { deliver } from '../commands/delivering';
import { addMessages, type Incoming } from '../intake/incoming';
import { memoryStore } from '../storage/recordStore';
import { incoming, openMailbox, testTime } from './testing';

/** An open mailbox. */
export type Box = Awaited<ReturnType<typeof openMailbox>>;
export const hour = 3_600_000;
export const minute = 60_000;
export const day = 24 * hour;
export const inbox = { kind: 'place', place: 'inbox' } as const;
export const held = { kind: 'place', place: 'held' } as const;
export const singly = { grouped: false, elsewhere: false };

/** A tray that gathers a domain. */
export const tray = (id: string, domain: string, round: Tray['round']): Tray =>
  traySchema.parse({
    id,
    name: id.toUpperCase(),
    when: { match: 'any', of: [{ field: 'from', how: 'domain', text: domain }] },
    labels: [],
    round,
    since: 0,
  });
// testTime is a Tuesday noon (24 November 2026, 12:00 UTC).
export const monday = tray('t', 'tray.test', { by: 'hours', days: ['MO'], times: ['07:00'] });
export const mondayAt = Date.UTC(2026, 10, 30, 7);

/** A mailbox with some trays, its clock at {@link testTime}, its zone UTC. */
export async function boxOf(trays: Tray[] = [monday], delivery: Partial<DeliverySettings> = {}) {
  const clock = { now: testTime };
  const records = new Map<string, unknown>();
  const mailbox = await openMailbox(memoryStore(records), () => clock.now);
  await set(mailbox, { trays, delivery });
  return { mailbox, records, clock };
}

let commands = 0;
/** A new id of a command. */
export const id = () => `command ${++commands}`;

/** Sets trays and how mail is delivered. */
export async function set(
  mailbox: Box,
  { trays = [], delivery }: { trays?: Tray[]; delivery?: Partial<DeliverySettings> },
) {
  const settings = { ...mailbox.setup.delivery, zone: 'UTC', ...delivery };
  const done = await changeSetup(
    mailbox,
    id(),
    [
      ...trays.map((item) => ({ list: 'trays' as const, id: item.id, item })),
      { list: 'delivery', id: 'delivery', item: settings },
    ],
    'Set',
    false,
  );
  if (!done.ok) throw new Error(done.error);
}

let made = 0;
/** A message of a sender that comes in now. */
export function from(sender: string, now: number, subject = ''): Incoming {
  const n = ++made;
  const bytes = new TextEncoder().encode(
    `From: ${sender}\r\nTo: desk@ferry.example\r\nSubject: ${subject || `Message ${n}`}\r\nMessage-ID: <${n}@x.test>\r\n` +
      `Date: ${new Date(now).toUTCString().replace('GMT', '+0000')}\r\n\r\nText\r\n`,
  );
  return { ...incoming(n), stored: { bytes, form: 'eml' }, envelope: { ...parseEnvelope(bytes), key: `key of ${n}` } };
}

/** Mail of some senders comes in, by the post office. */
export const come = (mailbox: Box, senders: string[], now = mailbox.now()) =>
  mailbox.exclusive(() =>
    addMessages(
      mailbox,
      senders.map((sender) => from(sender, now)),
      { command: id(), by: 'post office', says: 'Came' },
    ),
  );
/** What is due is delivered. */
export const wake = (mailbox: Box) => mailbox.exclusive(() => deliver(mailbox, mailbox.now()));
