// A message opened for reading, and its attachments.
import { attachmentBytes, bodyBlocks, hasAlternatives, inlinePictures, type BodyBlock } from '../../core/mail/body';
import { authenticationOf } from '../../core/mail/authentication';
import { shownBlocks } from '../../core/mail/shown';
import { anchorsOf } from '../../core/mail/links';
import { byteText } from '../../core/mail/charset';
import { isUnreadable } from '../../core/mail/envelope';
import type { Envelope } from '../../core/mail/envelopeSchema';
import type { Message } from '../../core/mail/message';
import { knownPeople, suspicionsOf } from '../../core/senders/suspicion';
import { encodeBase64 } from '../../core/mail/transfer';
import type { OpenMessage } from '../border/message';
import type { MailState } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import { rowOf } from './row';
import { expunged } from '../state/internedTables';
import { fileName } from '../../core/text/fileName';

/** A message opened for reading; null where its bytes are gone or can't be read. */
export async function open(
  mailbox: MailState & Stored & Pick<Correspondents, 'people'> & Judging,
  id: number,
  plain: boolean,
): Promise<OpenMessage | null> {
  if (id < 0 || id >= mailbox.columns.count || mailbox.columns.place[id] === expunged) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const message = await mailbox.raws.message(id);
  if (!message) return null;
  const envelope = mailbox.envelopes.get(id);
  if (isUnreadable(envelope)) return asItCame(mailbox, id, message.raw);
  const { raw, structure } = message;
  const blocks = bodyBlocks(raw, structure, plain);
  const pictures: Record<string, string> = {};
  for (const picture of inlinePictures(raw, structure))
    if (picture.bytes.length <= 5_000_000)
      pictures[picture.contentId] = `data:${picture.type};base64,${encodeBase64(picture.bytes, '', 0)}`;
  return {
    row: rowOf(mailbox, id),
    cc: envelope.cc,
    replyTo: envelope.replyTo,
    listId: envelope.listId,
    blocks: shownBlocks(blocks),
    alternatives: hasAlternatives(structure.root),
    attachments: envelope.attachments,
    pictures,
    size: envelope.size,
    wrongDate: envelope.received === undefined ? null : { says: envelope.date },
    registered: registeredOf(envelope),
    // What looks false stands in the HTML, also where its plain text is read.
    ...falseLooks(mailbox, id, message, plain ? bodyBlocks(raw, structure) : blocks),
  };
}

/** What the Register is asked about. */
const registeredOf = ({ from, deliveredTo, to, cc, listId, charset, script }: Envelope): OpenMessage['registered'] => ({
  from,
  deliveredTo,
  to: to.slice(0, 50),
  cc: cc.slice(0, 50),
  listId,
  charset,
  script,
});

/** So much is shown of a message that can't be taken apart, in bytes. */
const shownAsItCame = 100_000;

/** A message that nobody could take apart: its bytes as text, the beginning of them. */
function asItCame(mailbox: MailState & Stored & Judging, id: number, raw: Uint8Array): OpenMessage {
  const envelope = mailbox.envelopes.get(id);
  return {
    row: rowOf(mailbox, id),
    cc: [],
    replyTo: [],
    listId: '',
    blocks: [
      {
        kind: 'text',
        content: byteText(raw.subarray(0, shownAsItCame)),
        instead: null,
        cut: raw.length > shownAsItCame,
        cutOf: raw.length > shownAsItCame ? raw.length : null,
      },
    ],
    alternatives: false,
    attachments: [],
    pictures: {},
    size: envelope.size,
    wrongDate: null,
    registered: registeredOf(envelope),
    suspicions: [],
    dead: true,
  };
}

const nobody = knownPeople([]);

/** What looks false about a message, and whether its links are dead for it. */
function falseLooks(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> &
    Pick<Stored, 'envelopes'> &
    Pick<Correspondents, 'people'>,
  id: number,
  { structure }: Message,
  blocks: readonly BodyBlock[],
) {
  const { columns, tables, derived, envelopes, people } = mailbox;
  const { from, replyTo, listId } = envelopes.get(id);
  const html = blocks.filter((block) => block.kind === 'html');
  const anchors = html.flatMap((block) => anchorsOf(block.content.slice(0, 1_000_000)));
  const suspicions = derived.isOwn(id)
    ? []
    : suspicionsOf(
        { from, replyTo, byList: listId !== '' },
        authenticationOf(structure.fields),
        anchors,
        // Right after the start the people are not in memory yet; the page asks again once they are.
        derived.ready ? people.imitable : nobody,
      );
  const junk = tables.place(columns.place[id]) === 'junk';
  return { suspicions, dead: junk || suspicions.some(({ grave }) => grave) };
}

/** The bytes of an attachment, with a name that is safe as a file's. */
export async function attachment(mailbox: Pick<MailState, 'columns'> & Stored, id: number, index: number) {
  const message = await mailbox.raws.message(id);
  if (!message) return null;
  const bytes = attachmentBytes(message.raw, message.structure, index);
  if (!bytes) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const info = mailbox.envelopes.get(id).attachments[index];
  return {
    name: fileName(info?.name ?? `attachment-${index + 1}`),
    type: info?.type ?? 'application/octet-stream',
    bytes,
  };
}
