// A message before it is written: who, what and when, and of which kind.
import type { Address } from '../src/core/mail/address';
import type { MessageToWrite } from '../src/core/mail/writing';
import type { Random } from './random';

export interface Draft {
  message: Omit<MessageToWrite, 'date' | 'zone'>;
  date: number;
  kind: 'work' | 'bulletin' | 'junk' | 'machine' | 'sent' | 'invitation';
  /** Part of the one conversation that everybody answers to: nobody keeps much of that. */
  crowd?: true;
}

export const day = 86_400_000;
export const minute = 60_000;

/** The clock of the islands: an hour east of UTC. */
export const zone = 60;

/** The end of the day on the islands’ clock. */
export const eveningOf = (now: number): number => Math.floor((now + zone * minute) / day + 1) * day - zone * minute;

/** Moves a moment into the hours when offices write, mostly. */
export function officeHour(time: number, random: Random): number {
  const start = Math.floor(time / day) * day;
  const weekday = new Date(start).getUTCDay();
  const away = (weekday === 0 || weekday === 6) && random.chance(0.7) ? -random.int(1, 2) * day : 0;
  const hour = random.chance(0.85) ? 6 + random.next() * 11 : random.next() * 24;
  return Math.floor((start + away + hour * 60 * minute) / 1000) * 1000;
}

/** A Message-ID of the sender's domain (RFC 5322, section 3.6.4). */
export const idOf = (from: Address, random: Random): string =>
  `${random.hex(12)}.${random.hex(6)}@${from.address.slice(from.address.lastIndexOf('@') + 1)}`;
