// What is read of one stored message, and how: all of it away from the mailroom's own thread, since nobody knows how long a
// stranger's message keeps whoever takes it apart.
import { addressesIn } from '../../core/contacts/addressesIn';
import { answerSigns } from '../../core/delivery/automaticAnswer';
import { passageOf } from '../../core/search/marks';
import { featuresOf, namedFeaturesOf } from '../../core/junk/features';
import { readForJunk } from '../../core/junk/junkReading';
import { isCalendar } from '../../core/mail/attachmentKind';
import { authenticationOf } from '../../core/mail/authentication';
import { attachmentBytes, bodyBlocks, filesOf, hasAlternatives, inlinePictures } from '../../core/mail/body';
import { decodeUnlabelled } from '../../core/mail/charset';
import { decodeEncodedWords } from '../../core/mail/encodedWord';
import { withoutTurns } from '../../core/text/oneLine';
import { headOf } from '../../core/mail/envelope';
import { anchorsOf, linksOf } from '../../core/mail/links';
import { messageOfStored, type Message, type StoredMessage } from '../../core/mail/message';
import { textWithout } from '../../core/mail/quoted';
import { longestText, mostOpened, shownBlocks } from '../../core/mail/shown';
import { textFromHtml } from '../../core/mail/textFromHtml';
import { encodeBase64 } from '../../core/mail/transfer';
import { forwardedFiles } from '../../core/writing/forwardedFiles';
import { DeepTexts } from '../../core/rules/deep';
import type { DeepCondition } from '../../core/rules/rule';
import { leavingWays } from '../../core/senders/leavingWays';
import { digest } from '../storage/digest';

/** So much of a message’s source is shown: fields, characters of each, bytes of all. */
const [mostFields, longestField, mostSource] = [300, 5_000, 200_000];
/** Pictures within the text that are larger than this, in bytes, are attachments only. */
const largestPicture = 5_000_000;
/** So much of HTML is looked through for links that lie, in characters: all that is ever shown of it. */
const mostLinked = 1_000_000;

/** So much of a text is looked through for days and hours, in characters: reading them takes longer than all else. */
const mostDated = 50_000;

/** A calendar that is larger is not looked at where it comes with a message, in bytes; nor more of it than so many. */
const [largestCalendar, mostInvited] = [2_000_000, 20];

/** A message opened for reading; `plain`: its plain text where it has both. */
function opened({ raw, structure, text }: Message, plain: boolean) {
  const blocks = bodyBlocks(raw, structure, plain, mostOpened);
  const pictures: Record<string, string> = {};
  for (const { contentId, type, bytes } of inlinePictures(raw, structure))
    if (bytes.length <= largestPicture) pictures[contentId] = `data:${type};base64,${encodeBase64(bytes, '', 0)}`;
  // What looks false stands in the HTML, also where its plain text is read.
  const html = (plain ? bodyBlocks(raw, structure, false, mostOpened) : blocks).filter(
    (block) => block.kind === 'html',
  );
  return {
    blocks: shownBlocks(blocks),
    alternatives: hasAlternatives(structure.root),
    pictures,
    addresses: addressesIn(textWithout('quoted', text.slice(0, longestText))),
    authentication: authenticationOf(structure.fields),
    anchors: html.flatMap((block) => anchorsOf(block.content.slice(0, mostLinked))),
  };
}

/** A message for thinning: its texts, the addresses of its links, and each of its files by a key. */
async function whole({ raw, structure, text }: Message) {
  const html = bodyBlocks(raw, structure).filter((block) => block.kind === 'html');
  const files = filesOf(raw, structure).map(async ({ name, type, bytes }) => `${name} ${type} ${await digest(bytes)}`);
  return {
    // Where it is HTML alone, that is its text.
    texts: [...new Set([text, ...html.map((block) => textFromHtml(block.content))])],
    links: html.flatMap((block) => linksOf(block.content)),
    files: await Promise.all(files),
  };
}

/** What the junk filter goes by, and the same by name, for its evidence. */
function junkSigns(message: Message) {
  const reading = readForJunk(message, headOf(message));
  return { features: featuresOf(reading), named: namedFeaturesOf(reading) };
}

/** All that can be read of a message, each by its name. What comes back can be cloned. */
export const readings = {
  opened,
  whole,
  junkSigns,
  /** The text that a reader would see. */
  text: ({ text }: Message) => text,
  /** Where in its text stands what was sought; null where it does not. */
  passage: ({ text }: Message, sought: readonly string[]) => passageOf(text, sought),
  /** The bytes of its `index`th attachment; null where there are fewer. */
  attachment: ({ raw, structure }: Message, index: number) =>
    // A copy: what is sent takes all along that it is a part of.
    attachmentBytes(raw, structure, index)?.slice() ?? null,
  features: (message: Message) => featuresOf(readForJunk(message, headOf(message))),
  /** What an answer quotes of it: its plain text, and its rich one where it has one. */
  quotable: ({ raw, structure, text }: Message) => {
    const rich = bodyBlocks(raw, structure, false, mostOpened).filter(({ kind }) => kind === 'html');
    return { text: text.slice(0, mostOpened), html: rich.length ? rich.map(({ content }) => content).join('') : null };
  },
  /** What goes along where it is forwarded. */
  forwarded: ({ raw, structure }: Message, html: string) =>
    forwardedFiles(raw, structure, html).map((file) => ({ ...file, bytes: file.bytes.slice() })),
  /** Its header fields, decoded and as they stand, and its source as far as it is shown. */
  source: ({ raw, fields }: Message) => ({
    fields: fields.slice(0, mostFields).map(({ name, value }) => ({
      name: name.slice(0, 200),
      value: withoutTurns(decodeEncodedWords(value.replace(/\r?\n(?=[ \t])/g, ''))).slice(0, longestField),
    })),
    text: decodeUnlabelled(raw.subarray(0, mostSource)),
    size: raw.length,
  }),
  /** The calendar that came with it: what of it can be read, the first of several; null where there is none. */
  calendar: async ({ raw, structure }: Message, now: number) => {
    const file = filesOf(raw, structure).find(isCalendar);
    if (!file || file.bytes.length > largestCalendar) return null;
    const { readCalendar } = await import('../../core/agenda/readCalendar');
    const { items, method, remarks } = readCalendar(file.bytes, now);
    return { items: items.slice(0, mostInvited), method, remarks: remarks.slice(0, 20) };
  },
  /** The days and hours that stand in its subject and text, as they read on the day on which it was written. */
  dates: async ({ text }: Message, { subject, written, now }: { subject: string; written: number; now: number }) =>
    (await import('../../core/agenda/foundDates'))
      .datesIn(`${subject}\n${textWithout('quoted', text.slice(0, mostDated))}`, written)
      .filter(({ start }) => start > now - 86_400_000),
  /** Its bytes, as they came. */
  raw: ({ raw }: Message) => raw.slice(),
  /** Whether it may be answered automatically, by its header. */
  answerSigns: ({ fields }: Message) => answerSigns(fields),
  /** The same, and whether it bears a mark: of a header field’s name. */
  ruleSigns: ({ fields }: Message, mark: string) => ({
    answer: answerSigns(fields),
    marked: fields.some(({ key }) => key === mark.toLowerCase()),
  }),
  /** How its list can be left. */
  leaving: ({ fields }: Message) => leavingWays(fields, authenticationOf(fields).dkim === 'pass'),
  /** Which of some conditions on its text and its header hold. */
  holding: (message: Message, conditions: readonly DeepCondition[]) => {
    const texts = new DeepTexts(() => message);
    return conditions.map((condition) => texts.holds(condition));
  },
  /** Whether a header field says a text, as searching compares them. */
  says: (message: Message, { name, text }: { name: string; text: string }) =>
    new DeepTexts(() => message).says(name, text),
} as const;

export type Kind = keyof typeof readings;

/** What a reading needs to know besides the message. */
export type Given<K extends Kind> = Parameters<(typeof readings)[K]>[1];

/** What comes of a reading. */
export type Read<K extends Kind> = Awaited<ReturnType<(typeof readings)[K]>>;

/**
 * Reads something of each of some stored messages, in their order: null for one that can't be taken apart, or keeps its
 * reader for too long.
 */
export type ReadStored = <K extends Kind>(
  messages: readonly StoredMessage[],
  kind: K,
  given: Given<K>,
) => Promise<(Read<K> | null)[]>;

/** How messages are read one after another: as in a worker, and for tests. */
export interface Steps {
  /** Told before each message. */
  at?: (index: number) => void;
  /** Messages at which a reader did not come back. */
  passed?: ReadonlySet<number>;
}

/** Reads where it is called: in a worker, and in tests, which have none. No message stops another. */
export async function readHere<K extends Kind>(
  messages: readonly StoredMessage[],
  kind: K,
  given: Given<K>,
  { at, passed }: Steps = {},
): Promise<(Read<K> | null)[]> {
  const out: (Read<K> | null)[] = [];
  const read = readings[kind] as (message: Message, given: Given<K>) => Read<K> | Promise<Read<K>>;
  for (const [index, stored] of messages.entries()) {
    at?.(index);
    try {
      out.push(passed?.has(index) ? null : await read(messageOfStored(stored), given));
    } catch {
      out.push(null);
    }
  }
  return out;
}
