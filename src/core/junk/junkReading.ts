// What the junk filter reads of a message, and no more.
//
// Header fields read: From, Reply-To, To, Cc, Subject, Content-Type and Content-Transfer-Encoding (all of RFC 5322 and
// 2045, so any mailbox has them), Authentication-Results (RFC 8601), and through the envelope List-Id, List-Unsubscribe
// and Auto-Submitted. Not read: Received, Date, Message-ID, References and every X- field: they tell who delivered or
// wrote a message with what, not what it is, and would teach the filter one mailbox's history.
import type { Address } from '../mail/address';
import { authenticationOf, type Authentication } from '../mail/authentication';
import { bothBodies } from '../mail/body';
import type { EnvelopeHead } from '../mail/envelope';
import { fieldValue } from '../mail/header';
import type { Message } from '../mail/message';
import { leaves } from '../mail/structure';
import { textFromHtml } from '../mail/textFromHtml';

/** Longer than this no text is read; what junk wants to say it says early. In characters. */
export const mostText = 10_000;
const mostHtml = 60_000;
const mostLinks = 300;

/** A message as the junk filter sees it. */
export interface JunkReading {
  from: Address;
  replyTo: readonly Address[];
  /** To and Cc together. */
  recipients: readonly Address[];
  subject: string;
  /** At most {@link mostText} characters; line breaks kept. */
  text: string;
  /** The HTML as it came; empty where there is none. */
  html: string;
  /** The links of its HTML and its text, at most 300: the host in lower case, and how the path begins. */
  links: readonly { host: string; path: string }[];
  /** Whether it has plain text beside its HTML. */
  alsoPlain: boolean;
  /** Of each part its type, charset and transfer encoding, in lower case. */
  parts: readonly { type: string; charset: string; encoding: string }[];
  authentication: Authentication;
  /** By a mailing list, with a way to leave, or by a machine: what mailing software says of itself. */
  bulk: readonly ('list' | 'leave' | 'automatic')[];
}

const link = /https?:\/\/([^\s/"'<>?:)]+)(?:\/([^\s"'<>]{0,40}))?/gi;

function linksIn(...sources: string[]): JunkReading['links'] {
  const out: { host: string; path: string }[] = [];
  for (const source of sources)
    for (const [, host, path = ''] of source.matchAll(link))
      if (out.push({ host: host.toLowerCase(), path }) >= mostLinks) return out;
  return out;
}

/** Reads a message. Never throws. */
export function readForJunk({ raw, structure }: Message, head: EnvelopeHead): JunkReading {
  const blocks = bothBodies(raw, structure);
  const html = blocks.rich
    .filter((block) => block.kind === 'html')
    .map((block) => block.content)
    .join('\n')
    .slice(0, mostHtml);
  const plain = blocks.plain
    .map((block) => (block.kind === 'html' ? textFromHtml(block.content.slice(0, mostHtml)) : block.content))
    .join('\n');
  const text = plain.slice(0, mostText);
  const parts = leaves(structure.root);
  const bulk: JunkReading['bulk'][number][] = [];
  if (head.listId) bulk.push('list');
  if (fieldValue(structure.fields, 'list-unsubscribe') !== null) bulk.push('leave');
  if (head.automatic) bulk.push('automatic');
  return {
    from: head.from,
    replyTo: head.replyTo,
    recipients: [...head.to, ...head.cc],
    subject: head.subject,
    text,
    html,
    links: linksIn(html, text),
    alsoPlain: parts.some((part) => part.type === 'text/plain'),
    parts: parts.slice(0, 50).map(({ type, charset, encoding }) => ({
      type,
      charset: charset?.toLowerCase() ?? '',
      encoding,
    })),
    authentication: authenticationOf(structure.fields),
    bulk,
  };
}
