// Thinning: which messages of a conversation stand whole in a later one, and so can go without anything being lost.
//
// A message's text is compared as a run of words: line breaks and quote marks differ when text is quoted, words do not.
// It can go only if that run stands unbroken in what a later message quotes, and that later message stays.
import { quoteDepth } from '../mail/quoted';

/** A message of a conversation, read for thinning. */
export interface ThinCandidate {
  id: number;
  /** Milliseconds since 1970. */
  date: number;
  from: string;
  flagged: boolean;
  unread: boolean;
  /** Its whole text, plain; where it was sent as plain and as HTML, each as text: they need not say the same. */
  texts: readonly string[];
  /** The addresses of its links: those of an HTML body are not in its text. */
  links: readonly string[];
  /** What it carries besides its text, each by a key that says name and content. */
  files: readonly string[];
}

/** What becomes of one message, and why. */
export interface ThinVerdict {
  id: number;
  goes: boolean;
  /** The later message in which it stands; null where there is none. */
  standsIn: number | null;
  reason: ThinReason;
}

export type ThinReason = 'stands whole' | 'flagged' | 'unread' | 'attachment' | 'link' | 'no text' | 'said only here';

/** Quotes deeper than this are not looked into. */
const deepest = 6;
/** Later messages that are looked at for one message. */
const mostWitnesses = 300;

interface Read extends ThinCandidate {
  /** The words of each of its texts. */
  words: string[];
  /** Of each text by depth: the words of all lines quoted at least so deep; 0 is the whole text. */
  quoted: string[][];
}

const wordsOf = (lines: readonly string[]): string => ` ${lines.join(' ').replace(/\s+/g, ' ').trim()} `;

function read(candidate: ThinCandidate): Read {
  const quoted = candidate.texts.map((text) => {
    const lines = text.split('\n').map(quoteDepth);
    const byDepth: string[] = [];
    for (let depth = 0; depth <= deepest; depth++) {
      const some = lines.filter((line) => line.depth >= depth);
      if (some.length === 0) break;
      byDepth.push(wordsOf(some.map((line) => line.text)));
    }
    return byDepth;
  });
  return { ...candidate, words: quoted.map((byDepth) => byDepth[0]).filter((words) => words.trim() !== ''), quoted };
}

/** Whether a later message has the whole text: quoted, or said again by the same person. */
function hasText(later: Read, earlier: Read): boolean {
  const from = later.from !== '' && later.from === earlier.from ? 0 : 1;
  const said = later.quoted.flatMap((byDepth) => byDepth.slice(from));
  return earlier.words.every((words) => said.some((text) => text.includes(words)));
}

/**
 * What would go and what stays, in the order given. Kept always: what is flagged, unread, carries a file or a link that
 * the later message lacks, or was altered when it was quoted. Whatever goes stands in a message that stays.
 */
export function thin(candidates: readonly ThinCandidate[]): ThinVerdict[] {
  const verdicts = new Map<number, ThinVerdict>();
  const staying: Read[] = [];
  for (const candidate of candidates.toSorted((a, b) => b.date - a.date || b.id - a.id)) {
    const message = read(candidate);
    const verdict = judge(message, staying);
    verdicts.set(candidate.id, verdict);
    if (!verdict.goes) staying.push(message);
  }
  return candidates.map(({ id }) => verdicts.get(id)).filter((v) => v !== undefined);
}

function judge(message: Read, staying: readonly Read[]): ThinVerdict {
  const stay = (reason: ThinReason): ThinVerdict => ({ id: message.id, goes: false, standsIn: null, reason });
  if (message.flagged) return stay('flagged');
  if (message.unread) return stay('unread');
  if (message.words.length === 0) return stay('no text');
  const witnesses = staying.slice(-mostWitnesses).filter((later) => hasText(later, message));
  if (witnesses.length === 0) return stay('said only here');
  const withFiles = witnesses.filter((later) => message.files.every((file) => later.files.includes(file)));
  if (withFiles.length === 0) return stay('attachment');
  const witness = withFiles.find((later) => message.links.every((link) => later.links.includes(link)));
  if (!witness) return stay('link');
  return { id: message.id, goes: true, standsIn: witness.id, reason: 'stands whole' };
}
