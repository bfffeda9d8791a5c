// A message opened, and “Why here”, as they cross the border.
import type { Address } from '../../core/mail/address';
import type { AttachmentInfo } from '../../core/mail/body';
import type { ShownBlock } from '../../core/mail/shown';
import type { Suspicion } from '../../core/senders/suspicion';
import type { Registered } from '../../core/senders/register';
import type { Row } from './rows';

/** A message opened for reading. */
export interface OpenMessage {
  row: Row;
  cc: Address[];
  replyTo: Address[];
  listId: string;
  blocks: ShownBlock[];
  /** Whether the sender gave the same text as plain and as HTML. */
  alternatives: boolean;
  attachments: AttachmentInfo[];
  /** The addresses that stand in its text, without what it quotes. */
  addresses: Address[];
  /** Pictures that came within the message, as data: URLs by Content-ID. */
  pictures: Record<string, string>;
  size: number;
  /** What its Date field says, where it is shown and sorted by when it was received instead: null for nothing readable. */
  wrongDate: { says: number | null } | null;
  /** What the Register goes by. */
  registered: Registered;
  /** What looks false about it, the worst first. */
  suspicions: Suspicion[];
  /** Its links are shown with where they go, and lead nowhere: it is junk, or looks gravely false. */
  dead: boolean;
}

/** One line of “Why here”. `setting` is `entry:ID` or `rule:ID` where a setting decided that still exists. */
export interface WhyLine {
  at: number | null;
  who: string;
  says: string;
  setting: string | null;
  /** Its number in the Logbook, for what was done after the message had arrived. */
  seq: number | null;
}

/** What a message says of itself, and how it stands in storage. */
export interface MessageSource {
  /** In their order, decoded. */
  fields: { name: string; value: string }[];
  /** Its first bytes as text. */
  text: string;
  /** All of it, in bytes. */
  size: number;
}
