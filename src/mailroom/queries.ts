// Questions: what the page may ask of the mailbox. None of them changes anything.
import { attachmentBytes, bodyBlocks, hasAlternatives, inlinePictures } from '../core/mail/body';
import { messageOf } from '../core/mail/mbox';
import { fixedPlaces, type Place } from '../core/mail/place';
import { authenticationOf } from '../core/mail/authentication';
import { anchorsOf } from '../core/mail/links';
import { parseStructure, type Structure } from '../core/mail/structure';
import { knownPeople, suspicionsOf } from '../core/senders/suspicion';
import { encodeBase64 } from '../core/mail/transfer';
import type { OpenMessage, Overview, PostStatus } from './api';
import { newJunk } from './junkQueries';
import { lastUndoable } from './logbook';
import type { Mailbox } from './mailbox';
import { rowOf } from './rows';
import { gone } from './tables';

const inbox = { kind: 'place', place: 'inbox' } as const;

/** The counts for the line. `dayStart`: when today began where the person is. */
export function overview(mailbox: Mailbox, post: PostStatus, dayStart: number): Overview {
  const { columns, tables, setup, views } = mailbox;
  const counts = views.counts();
  const places = new Set<Place>([...fixedPlaces, ...setup.folders.map((f): Place => `folder:${f.id}`)]);
  const labels = new Map(setup.labels.map(({ id }) => [id, { label: id, total: 0, unread: 0 }]));
  for (const [index, set] of tables.labelSets.items.entries())
    for (const label of set) {
      const its = labels.get(label);
      if (!its) continue;
      its.total += counts.labelSets[index];
      its.unread += counts.unreadLabelSets[index];
    }
  const today = { register: 0, junk: 0, rules: 0, inbox: 0 };
  for (const id of views.since(dayStart)) {
    const last = tables.traces.items[columns.trace[id]]?.at(-1)?.station;
    if (columns.place[id] !== gone && last && last in today) today[last as keyof typeof today]++;
  }
  const indexOf = (place: Place) => tables.places.items.indexOf(place);
  return {
    revision: mailbox.revision,
    total: columns.count - counts.total[gone],
    places: [...places].map((place) => ({
      place,
      total: counts.total[indexOf(place)] ?? 0,
      unread: counts.unread[indexOf(place)] ?? 0,
    })),
    labels: [...labels.values()],
    accounts: setup.accounts.map(({ id }) => ({ account: id, ...views.countOf({ ...inbox, account: id }) })),
    damaged: views.list({ kind: 'damaged' }).length,
    newJunk: newJunk(mailbox).length,
    today,
    setup,
    post,
    troubles: [...mailbox.troubles],
    undo: lastUndoable(mailbox),
  };
}

/** A message opened for reading; null where its bytes are gone or can't be read. */
export async function open(mailbox: Mailbox, id: number, plain: boolean): Promise<OpenMessage | null> {
  if (id < 0 || id >= mailbox.columns.count || mailbox.columns.place[id] === gone) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const stored = await mailbox.raws.read(id).catch(() => null);
  if (!stored) return null;
  const raw = messageOf(stored.bytes, stored.form);
  const structure = parseStructure(raw);
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
    ...falseLooks(mailbox, id, raw, structure),
  };
}

const nobody = knownPeople([]);

/** What looks false about a message, and whether its links are dead for it. */
function falseLooks(mailbox: Mailbox, id: number, raw: Uint8Array, structure: Structure) {
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
export async function attachment(mailbox: Mailbox, id: number, index: number) {
  const stored = await mailbox.raws.read(id).catch(() => null);
  if (!stored) return null;
  const raw = messageOf(stored.bytes, stored.form);
  const bytes = attachmentBytes(raw, parseStructure(raw), index);
  if (!bytes) return null;
  await mailbox.envelopes.ensure([id], mailbox.columns.count);
  const info = mailbox.envelopes.get(id).attachments[index];
  return {
    name: fileName(info?.name ?? `attachment-${index + 1}`),
    type: info?.type ?? 'application/octet-stream',
    bytes,
  };
}

/** A name without what a file system or a shell could take for more than a name. */
export function fileName(name: string): string {
  const safe = name
    .replace(/[\u0000-\u001f\u007f\u202a-\u202e\u2066-\u2069/\\:*?"<>|]+/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '')
    .slice(0, 120);
  return safe || 'unnamed';
}
