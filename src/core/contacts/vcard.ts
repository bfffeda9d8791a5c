// Contacts as cards: vCard 4.0 (RFC 6350) and 3.0 (RFC 2426) out, these and 2.1 in. Lines are taken apart by ical.js; what
// belongs to which card is found here first, so that one that is broken spoils no other.
import ICAL from 'ical.js';
import { decodeText, textOfFile } from '../mail/charset';
import { decodeQuotedPrintable } from '../mail/transfer';
import { normalAddress } from '../senders/normal';
import { colonOf, escaped, folded, lineOfValue, paragraphs, unfolded, type ContentLine } from '../text/contentLines';
import { addressesOf, mostAddresses, mostGroups, roles, type Contact, type Role } from './contact';

/** A contact of a card; its id is given by who takes it up. */
export type CardContact = Omit<Contact, 'id'>;

/** What a file of cards holds, and what of it was not taken. */
export interface ReadCards {
  contacts: CardContact[];
  /** Each with the number of the card, from 1, the line in the file, from 1, and what is wrong. */
  remarks: { card: number; line: number; says: string }[];
  /** How many cards there are in it. */
  cards: number;
}

/** No file of cards is read further. */
export const mostCards = 20_000;
const mostCharacters = 50_000_000;
const mostLines = 2_000;
const longestValue = 100_000;

const roleProperty = 'X-WIDESORT-ROLE';

/** Lines of vCard 2.1 whose quoted-printable goes on in the next (vCard 2.1, section 2.1.3). */
function joinedSoft(lines: readonly ContentLine[]): ContentLine[] {
  const out: ContentLine[] = [];
  for (let n = 0; n < lines.length; n++) {
    let { text } = lines[n];
    const { at } = lines[n];
    if (/^[^:]*;(?:ENCODING=)?QUOTED-PRINTABLE[;:]/i.test(text))
      while (text.endsWith('=') && n + 1 < lines.length && text.length < longestValue)
        text = text.slice(0, -1) + lines[++n].text;
    out.push({ text, at });
  }
  return out;
}

/** A line of vCard 2.1 as 3.0 has it: bare parameters are types, what was encoded is text in UTF-8. */
function modern(text: string): string {
  const colon = colonOf(text);
  if (colon < 0) return text;
  const [name, ...parameters] = text.slice(0, colon).split(';');
  let value = text.slice(colon + 1);
  const kept: string[] = [];
  let charset: string | null = null;
  let encoded = false;
  for (const parameter of parameters) {
    const [key, ...rest] = parameter.split('=');
    const said = rest.join('=');
    if (/^charset$/i.test(key)) charset = said;
    else if (/^(encoding=)?quoted-printable$/i.test(parameter)) encoded = true;
    else kept.push(rest.length ? parameter : /^(base64|8bit|7bit)$/i.test(key) ? `ENCODING=${key}` : `TYPE=${key}`);
  }
  if (encoded) {
    value = decodeText(decodeQuotedPrintable(new TextEncoder().encode(value)), charset ?? 'utf-8');
    // Lines of the value are lines of text, not of the card.
    value = value.replace(/\r\n|\r|\n/g, '\\n');
  }
  return `${[name, ...kept].join(';')}:${value}`;
}

/** The components of a value, parted by semicolons (RFC 6350, section 3.4). */
function components(value: string): string[] {
  const out: string[] = [''];
  for (const [piece] of value.matchAll(/\\[^]|[^\\;]+|;|\\$/g)) {
    if (piece === ';') out.push('');
    else out[out.length - 1] += piece[0] === '\\' ? (/n/i.test(piece[1] ?? '') ? ' ' : (piece[1] ?? '')) : piece;
  }
  return out;
}

/** One card as it is read, line by line. */
class Card {
  name = '';
  nameOfParts = '';
  addresses: string[] = [];
  organisation = '';
  note = '';
  role: Role | null = null;
  groups: string[] = [];
  kept: string[] = [];
  uid = '';
  kind = '';
  members: string[] = [];
  wrong: { line: number; says: string }[] = [];

  private email(value: string, at: number): void {
    const address = normalAddress(value.trim().replace(/^mailto:/i, ''));
    if (!/^\S+@\S+$/.test(address) || address.length > 400)
      this.wrong.push({ line: at, says: `“${value.slice(0, 80)}” is no address.` });
    else if (!this.addresses.includes(address) && this.addresses.length < mostAddresses) this.addresses.push(address);
  }

  /** Takes a property that is understood; false where it is kept as it is. */
  private known(property: InstanceType<typeof ICAL.Property>, raw: string, at: number): boolean {
    const values = property.getValues() as unknown[];
    const [value] = values;
    switch (property.name) {
      case 'version':
      case 'prodid':
      case 'rev':
        return true;
      case 'fn':
        if (this.name) return false;
        this.name = lineOfValue(value, 200);
        return true;
      case 'n':
        {
          const [family, given, middle] = components(raw).map((one) => lineOfValue(one, 200));
          this.nameOfParts = [given, middle, family].filter(Boolean).join(' ').slice(0, 200);
        }
        return false;
      case 'email':
        this.email(lineOfValue(value, 1_000), at);
        return true;
      case 'org':
        {
          const [organisation, ...units] = components(raw);
          const known = this.organisation !== '' || units.length > 0;
          this.organisation ||= lineOfValue(organisation, 500);
          if (known) return false;
        }
        return true;
      case 'note':
        if (this.note) return false;
        this.note = paragraphs(value);
        return true;
      case 'categories':
        for (const one of values.flat(9)) {
          const group = lineOfValue(one, 100);
          if (group && !this.groups.includes(group) && this.groups.length < mostGroups) this.groups.push(group);
        }
        return true;
      case roleProperty.toLowerCase():
        this.role = roles.find((role) => role === String(value)) ?? null;
        return true;
      case 'uid':
        this.uid = String(value);
        return false;
      case 'kind':
      case 'x-addressbookserver-kind':
        this.kind = String(value).toLowerCase();
        return this.kind === 'group' || this.kind === 'individual';
      case 'member':
      case 'x-addressbookserver-member':
        this.members.push(String(value));
        return true;
      default:
        return false;
    }
  }

  take({ text, at }: ContentLine, version: string): void {
    const now = version === '2.1' ? modern(text) : text;
    if (now.length > longestValue)
      return void this.wrong.push({ line: at, says: 'The line is too long and was left out.' });
    try {
      // A name may have a group before it, as in “item1.EMAIL” (RFC 6350, section 3.3).
      const bare = now.replace(/^[A-Za-z0-9-]+\.(?=[A-Za-z0-9-]+[;:])/, '');
      const colon = colonOf(bare);
      const raw = bare.slice(colon + 1);
      // Where a value has no components a semicolon may be escaped all the same, which ical.js leaves as it stands.
      const plain = /^(?:fn|note|email|categories)[;:]/i.test(bare)
        ? bare.slice(0, colon + 1) + raw.replace(/\\([^])/g, (pair, of: string) => (of === ';' ? ';' : pair))
        : bare;
      const property = ICAL.Property.fromString(plain, version === '4.0' ? ICAL.design.vcard : ICAL.design.vcard3);
      if (!this.known(property, raw, at) && this.kept.length < 500) this.kept.push(now.replace(/[\0\r\n]/g, ''));
    } catch {
      this.wrong.push({ line: at, says: `“${text.slice(0, 60)}” can’t be read and was left out.` });
    }
  }
}

/** A card as a contact, or what is wrong with it. */
function contactOf(card: Card): CardContact | string {
  const [address, ...more] = card.addresses;
  const name = card.name || card.nameOfParts;
  if (!address) return `${name ? `“${name.slice(0, 80)}”` : 'A card'} has no address of mail and was left out.`;
  const { organisation, note, role, groups, kept } = card;
  return { name: name === address ? '' : name, address, more, organisation, note, role, groups, kept };
}

/** Reads a file of cards, in any of the three versions and whatever character set. Never throws. */
export function readCards(file: Uint8Array | string): ReadCards {
  const text = (typeof file === 'string' ? file : textOfFile(file)).slice(0, mostCharacters);
  const lines = joinedSoft(unfolded(text));
  const remarks: ReadCards['remarks'] = [];
  const read: { card: Card; at: number; n: number }[] = [];
  let cards = 0;
  for (let n = 0; n < lines.length; n++) {
    if (!/^\s*BEGIN:VCARD\s*$/i.test(lines[n].text)) continue;
    cards++;
    if (cards > mostCards) {
      remarks.push({
        card: cards,
        line: lines[n].at,
        says: `No more than ${mostCards} cards are read: the rest was left out.`,
      });
      break;
    }
    let end = n + 1;
    while (end < lines.length && !/^\s*(END|BEGIN):VCARD\s*$/i.test(lines[end].text)) end++;
    const whole = end < lines.length && /END/i.test(lines[end].text);
    const its = lines.slice(n + 1, Math.min(end, n + 1 + mostLines));
    const version = its.map(({ text: said }) => /^VERSION:\s*([\d.]+)/i.exec(said)?.[1]).find(Boolean) ?? '3.0';
    const card = new Card();
    for (const one of its) if (one.text.trim() !== '') card.take(one, version);
    if (!whole) card.wrong.push({ line: lines[n].at, says: 'The card does not end: what there was of it was taken.' });
    read.push({ card, at: lines[n].at, n: cards });
    n = whole ? end : end - 1;
  }
  if (cards === 0) remarks.push({ card: 0, line: 1, says: 'No card is in it: a card begins with BEGIN:VCARD.' });
  intoGroups(read.map(({ card }) => card));
  const contacts: CardContact[] = [];
  for (const { card, at, n } of read) {
    for (const { line: where, says } of card.wrong) remarks.push({ card: n, line: where, says });
    if (card.kind === 'group') continue;
    const contact = contactOf(card);
    if (typeof contact === 'string') remarks.push({ card: n, line: at, says: contact });
    else contacts.push(contact);
  }
  return { contacts, remarks, cards };
}

/** Cards of the kind “group” name those who are in it (RFC 6350, section 6.6.5). */
function intoGroups(cards: readonly Card[]): void {
  const bare = (uid: string): string => uid.replace(/^urn:uuid:/i, '').toLowerCase();
  const by = new Map<string, Card>();
  for (const card of cards) {
    if (card.uid) by.set(bare(card.uid), card);
    for (const address of card.addresses) if (card.kind !== 'group') by.set(`mailto:${address}`, card);
  }
  for (const { kind, name, members } of cards) {
    if (kind !== 'group' || !name) continue;
    for (const member of members) {
      const card = by.get(bare(member));
      if (card && !card.groups.includes(name.slice(0, 100)) && card.groups.length < mostGroups)
        card.groups.push(name.slice(0, 100));
    }
  }
}

/** The same as one of several components. */
const component = (text: string): string => escaped(text).replace(/;/g, '\\;');

/** One contact as a card. */
function cardOf(contact: Contact, version: '4.0' | '3.0'): string {
  const { name, address, organisation, note, role, groups, kept } = contact;
  const keeps = (property: string): boolean =>
    kept.some((one) => new RegExp(`^(?:[\\w-]+\\.)?${property}[;:]`, 'i').test(one));
  const lines = ['BEGIN:VCARD', `VERSION:${version}`, `FN:${escaped(name || address)}`];
  // 3.0 wants it (RFC 2426, section 3.1.2).
  if (version === '3.0' && !keeps('N')) lines.push(`N:${component(name || address)};;;;`);
  for (const [n, one] of addressesOf(contact).entries()) {
    const first = n > 0 ? '' : version === '4.0' ? ';PREF=1' : ';TYPE=PREF';
    lines.push(`EMAIL${first}:${version === '4.0' ? one : escaped(one)}`);
  }
  if (organisation && !keeps('ORG')) lines.push(`ORG:${component(organisation)}`);
  if (note) lines.push(`NOTE:${escaped(note)}`);
  if (groups.length) lines.push(`CATEGORIES:${groups.map(escaped).join(',')}`);
  if (role) lines.push(`${roleProperty}:${role}`);
  if (!keeps('UID')) lines.push(`UID:${escaped(contact.id)}`);
  // What another program wrote goes back as it came; a version may not have what the other one had.
  lines.push(...kept, 'END:VCARD');
  return lines.map(folded).join('');
}

/** Contacts as a file of cards, lines ended by CRLF. */
export const writeCards = (contacts: readonly Contact[], version: '4.0' | '3.0' = '4.0'): string =>
  contacts.map((one) => cardOf(one, version)).join('');
