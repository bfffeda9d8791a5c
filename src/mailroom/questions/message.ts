// A message opened for reading, and its attachments.
import { attachmentName } from '../../core/mail/attachmentKind';
import { byteText } from '../../core/mail/charset';
import { isUnreadable, type Envelope } from '../../core/mail/envelopeSchema';
import { messageOf } from '../../core/mail/mbox';
import { knownPeople } from '../../core/senders/knownPeople';
import { suspicionsOf } from '../../core/senders/suspicion';
import type { MessageSource, OpenMessage } from '../border/message';
import type { MailState } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Readable } from '../reading/reader';
import type { Read } from '../reading/readings';
import type { Stored } from '../storage/stored';
import type { Judging } from '../junk/junkFilter';
import { rowOf } from './row';
import { expunged } from '../state/internedTables';
import { fileName } from '../../core/text/fileName';

/** A message opened for reading; null where its bytes are gone or can't be read. */
export async function open(
  mailbox: MailState & Stored & Readable & Pick<Correspondents, 'people'> & Judging,
  id: number,
  plain: boolean,
): Promise<OpenMessage | null> {
  if (id < 0 || id >= mailbox.columns.count || mailbox.columns.place[id] === expunged) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const envelope = mailbox.envelopes.get(id);
  const read = isUnreadable(envelope) ? null : await mailbox.reader.open(id, plain);
  if (!read) return asItCame(mailbox, id);
  const { blocks, alternatives, pictures, addresses } = read;
  return {
    ...outside(mailbox, id),
    cc: envelope.cc,
    replyTo: envelope.replyTo,
    listId: envelope.listId,
    blocks,
    alternatives,
    attachments: envelope.attachments,
    addresses,
    pictures,
    wrongDate: envelope.received === undefined ? null : { says: envelope.date },
    ...falseLooks(mailbox, id, read),
  };
}

/** What is shown of a message whether it could be taken apart or not. */
function outside(mailbox: MailState & Stored & Judging, id: number): Pick<OpenMessage, 'row' | 'size' | 'registered'> {
  const envelope = mailbox.envelopes.get(id);
  return { row: rowOf(mailbox, id), size: envelope.size, registered: registeredOf(envelope) };
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

/** A message that nobody could take apart: its bytes as text, the beginning of them; null where they can't be read. */
async function asItCame(mailbox: MailState & Stored & Judging, id: number): Promise<OpenMessage | null> {
  const stored = await mailbox.raws.readable(id);
  if (!stored) return null;
  const raw = messageOf(stored.bytes, stored.form);
  const cut = raw.length > shownAsItCame;
  const content = byteText(raw.subarray(0, shownAsItCame));
  return {
    ...outside(mailbox, id),
    cc: [],
    replyTo: [],
    listId: '',
    blocks: [{ kind: 'text', content, instead: null, cut, cutOf: cut ? raw.length : null }],
    alternatives: false,
    attachments: [],
    addresses: [],
    pictures: {},
    wrongDate: null,
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
  { authentication, anchors }: Pick<Read<'opened'>, 'authentication' | 'anchors'>,
) {
  const { columns, tables, derived, envelopes, people } = mailbox;
  const { from, replyTo, listId } = envelopes.get(id);
  const suspicions = derived.isOwn(id)
    ? []
    : suspicionsOf(
        { from, replyTo, byList: listId !== '' },
        authentication,
        anchors,
        // Right after the start the people are not in memory yet; the page asks again once they are.
        derived.ready ? people.imitable : nobody,
      );
  const junk = tables.place(columns.place[id]) === 'junk';
  return { suspicions, dead: junk || suspicions.some(({ grave }) => grave) };
}

/** The bytes of an attachment, with a name that is safe as a file's. */
export async function attachment(
  mailbox: Pick<MailState, 'columns'> & Pick<Stored, 'envelopes'> & Readable,
  id: number,
  index: number,
) {
  const bytes = await mailbox.reader.one(id, 'attachment', index);
  if (!bytes) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const info = mailbox.envelopes.get(id).attachments[index];
  const type = info?.type ?? 'application/octet-stream';
  return {
    name: fileName(attachmentName({ name: info?.name ?? null, type }, index)),
    type,
    bytes,
  };
}

/** The header fields of a message and its source; null where its bytes are gone or can't be read. */
export async function source({ columns, reader }: MailState & Readable, id: number): Promise<MessageSource | null> {
  if (id < 0 || id >= columns.count || columns.place[id] === expunged) return null;
  return reader.one(id, 'source', undefined);
}
