// The automatic answer while mail is held: to whom it must not go (RFC 3834, section 2; RFC 5230, sections 4.5 and 4.6), where
// it goes, and what it says. Off unless the person switches it on.
import { z } from 'zod';
import { addressKey, domainOf, type Address } from '../mail/address';
import { AccountIndex, type Account } from '../mail/account';
import { threadFields } from '../writing/threadFields';
import type { Envelope } from '../mail/envelopeSchema';
import { type HeaderField } from '../mail/header';
import { idSchema } from '../data/id';

export const automaticAnswerSchema = z.object({
  on: z.boolean(),
  /** Whoever was answered is not answered again for so many days. */
  days: z.number().int().min(1).max(60),
  /** What is answered for each account; an account without a text does not answer. */
  texts: z.array(z.object({ account: idSchema, subject: z.string().max(500), text: z.string().max(20_000) })).max(100),
});
export type AutomaticAnswer = z.infer<typeof automaticAnswerSchema>;

export const noAnswer: AutomaticAnswer = { on: false, days: 7, texts: [] };

/** What of a message’s header the answer goes by. */
export interface AnswerSigns {
  /** The field Return-Path without its brackets; empty for the null path, null where there is no such field. */
  returnPath: string | null;
  /** Why it must not be answered, by its header alone, in words; null where nothing there forbids it. */
  forbids: string | null;
}

/** Fields of mailing lists (RFC 2369, RFC 2919): “SHOULD NOT respond to any message that contains” one (RFC 5230, section 4.6). */
const listFields = [
  'list-id',
  'list-help',
  'list-subscribe',
  'list-unsubscribe',
  'list-post',
  'list-owner',
  'list-archive',
];

/** The values of all fields of a name, which is given in lower case. */
const valuesOf = (fields: readonly HeaderField[], name: string): string[] =>
  fields.filter(({ key }) => key === name).map(({ value }) => value);

/** What stands before comments and parameters of a field, in lower case. */
const keyword = (value: string): string =>
  value
    .trim()
    .toLowerCase()
    .split(/[\s;(]/)[0];

/** Why a message must not be answered, by its header. */
function forbiddenBy(fields: readonly HeaderField[], returnPath: string | null): string | null {
  // RFC 3834, section 2: “any value other than "no"”.
  if (valuesOf(fields, 'auto-submitted').some((value) => keyword(value) !== 'no')) return 'it was sent automatically';
  if (listFields.some((name) => valuesOf(fields, name).length > 0)) return 'it came by a mailing list';
  // RFC 3834, section 2: “list”, “junk” and “bulk” are in wide use, though no standard has them.
  if (valuesOf(fields, 'precedence').some((value) => ['bulk', 'list', 'junk'].includes(keyword(value))))
    return 'it is bulk mail';
  // RFC 3834, section 2: a null return path is that of reports and of other automatic answers.
  if (returnPath === '') return 'its return path is empty';
  return null;
}

/** What of a message’s header the answer goes by. */
export function answerSigns(fields: readonly HeaderField[]): AnswerSigns {
  const path = valuesOf(fields, 'return-path')[0];
  const inside = path === undefined ? null : (/<([^<>]*)>/.exec(path)?.[1] ?? path).trim();
  return { returnPath: inside, forbids: forbiddenBy(fields, inside) };
}

/**
 * Addresses of programs and roles: “owner-” and “-request” of lists, and those that programs write from (RFC 3834, section
 * 2; RFC 5230, section 4.6; the forms of “no reply” are common practice, no source).
 */
const ofPrograms =
  /^(?:owner-.*|.*-(?:request|owner|relay|bounces?)|mailer-daemon|listserv|majordomo|listproc|postmaster|(?:no|do[-_]?not)[-_.]?reply(?:[-_.+].*)?)$/;

const isOfProgram = (address: string): boolean => {
  const key = addressKey(address);
  return ofPrograms.test(key.slice(0, key.lastIndexOf('@')));
};

/** Where an answer goes, and as which account; or why there is none, in words. */
export type ToAnswer = { ok: true; to: Address; account: Account } | { ok: false; why: string };

/** Whether a message is answered automatically: by its envelope, the signs of its header, and the accounts. */
export function toAnswer(
  envelope: Pick<Envelope, 'from' | 'to' | 'cc'>,
  { returnPath, forbids }: AnswerSigns,
  accounts: readonly Account[],
): ToAnswer {
  const no = (why: string): ToAnswer => ({ ok: false, why });
  if (forbids !== null) return no(forbids);
  const own = new AccountIndex(accounts).own;
  // RFC 3834, section 4: to the return path, since that is where automatic answers belong.
  const to = returnPath === null ? envelope.from : { name: '', address: returnPath };
  for (const address of [to.address, envelope.from.address]) {
    if (!/^[^\s@<>,]+@[^\s@<>,]+$/.test(address) || domainOf(address) === '') return no('it names nobody to answer');
    if (own.has(addressKey(address))) return no('it is your own');
    if (isOfProgram(address)) return no('it comes from a program, or from an address of a role');
  }
  // RFC 5230, section 4.5: an own address must stand in To or Cc.
  const named = [...envelope.to, ...envelope.cc].map(({ address }) => addressKey(address));
  const account = accounts.find(({ address }) => named.includes(addressKey(address)));
  return account ? { ok: true, to, account } : no('none of your addresses is named in it');
}

/** What is answered: a subject of its own, or that of the message (RFC 5230, section 4.7; RFC 3834, section 3.1.5). */
export function answerOf(
  { messageId, references, subject }: Pick<Envelope, 'messageId' | 'references' | 'subject'>,
  text: AutomaticAnswer['texts'][number],
) {
  return {
    subject: (text.subject.trim() || `Auto: ${subject}`).replace(/\s+/g, ' ').trim(),
    text: text.text,
    ...threadFields({ messageId, references }),
    // RFC 3834, section 5; and no program answers it in turn.
    extra: [['Auto-Submitted', 'auto-replied']] as [string, string][],
  };
}
