// A message opened for reading, and its attachments.
import { attachmentBytes, bodyBlocks, hasAlternatives, inlinePictures } from '../../core/mail/body';
import { authenticationOf } from '../../core/mail/authentication';
import { anchorsOf } from '../../core/mail/links';
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
  const { raw, structure } = message;
  const envelope = mailbox.envelopes.get(id);
  const pictures: Record<string, string> = {};
  for (const picture of inlinePictures(raw, structure))
    if (picture.bytes.length <= 5_000_000)
      pictures[picture.contentId] = `data:${picture.type};base64,${encodeBase64(picture.bytes, '', 0)}`;
  return {
    row: rowOf(mailbox, id),
    cc: envelope.cc,
    replyTo: envelope.replyTo,
    listId: envelope.listId,
    blocks: bodyBlocks(raw, structure, plain).map((block) => ({
      ...block,
      content: block.content.slice(0, 2_000_000),
    })),
    alternatives: hasAlternatives(structure.root),
    attachments: envelope.attachments,
    pictures,
    size: envelope.size,
    registered: {
      from: envelope.from,
      deliveredTo: envelope.deliveredTo,
      to: envelope.to.slice(0, 50),
      cc: envelope.cc.slice(0, 50),
      listId: envelope.listId,
      charset: envelope.charset,
      script: envelope.script,
    },
    ...falseLooks(mailbox, id, message),
  };
}

const nobody = knownPeople([]);

/** What looks false about a message, and whether its links are dead for it. */
function falseLooks(
  mailbox: Pick<MailState, 'columns' | 'tables' | 'derived'> &
    Pick<Stored, 'envelopes'> &
    Pick<Correspondents, 'people'>,
  id: number,
  { raw, structure }: Message,
) {
  const { columns, tables, derived, envelopes, people } = mailbox;
  const { from, replyTo, listId } = envelopes.get(id);
  const html = bodyBlocks(raw, structure).filter((block) => block.kind === 'html');
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
