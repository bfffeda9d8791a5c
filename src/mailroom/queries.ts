// Questions: what the page may ask of the mailbox. None of them changes anything.
import { stationNames } from '../core/line/decide';
import { dryRun as compare } from '../core/line/dryRun';
import { addressKey } from '../core/mail/address';
import { attachmentBytes, bodyBlocks, hasAlternatives, inlinePictures } from '../core/mail/body';
import { messageOf } from '../core/mail/mbox';
import { fixedPlaces, type Place } from '../core/mail/place';
import { parseStructure } from '../core/mail/structure';
import { encodeBase64 } from '../core/mail/transfer';
import { RuleSet } from '../core/rules/match';
import type {
  DryRunReport,
  DryRunResult,
  LogEntry,
  OpenMessage,
  Overview,
  PostStatus,
  Row,
  RowWindow,
  SetupEdit,
  View,
  WhyLine,
} from './api';
import { bit } from './columns';
import { binKeeps, candidates, edited } from './commands';
import type { JournalHead, Mailbox } from './mailbox';
import type { StoredTraceLine } from './records';
import { gone } from './tables';
import { canUndo, jobOf, undoneBy } from './undo';

/** A message as one row shows it. Its envelope must have been made ready. */
export function rowOf(mailbox: Mailbox, id: number): Row {
  const { columns, tables, envelopes } = mailbox;
  const envelope = envelopes.get(id);
  const place = tables.place(columns.place[id]);
  const bits = columns.bits[id];
  return {
    id,
    from: envelope.from,
    to: envelope.to.slice(0, 50),
    subject: envelope.subject,
    preview: envelope.preview,
    date: columns.date[id],
    unread: !(bits & bit.read),
    flagged: (bits & bit.flagged) !== 0,
    attachments: envelope.attachments.length,
    labels: tables.labelSets.items[columns.labels[id]] ?? [],
    place,
    damage: envelope.damage,
    deletedOn: place === 'bin' ? columns.placedAt[id] + binKeeps : null,
  };
}

/** A window of a view. */
export async function rows(mailbox: Mailbox, view: View, from: number, to: number): Promise<RowWindow> {
  const list = mailbox.views.list(view);
  const ids = list.subarray(Math.max(0, from), Math.max(0, to));
  const { revision } = mailbox;
  await mailbox.envelopes.ensure(ids, mailbox.columns.count);
  // The first rows are out: the rest may be read now.
  mailbox.beginRest();
  let unread = 0;
  for (const id of list) if (!(mailbox.columns.bits[id] & bit.read)) unread++;
  return {
    revision,
    total: list.length,
    unread,
    from: Math.max(0, from),
    rows: [...ids].map((id) => rowOf(mailbox, id)),
  };
}

/** Where a message stands in a view; -1 where it does not. */
export function position(mailbox: Mailbox, view: View, id: number): number {
  return mailbox.views.list(view).indexOf(id);
}

/** The counts for the line. `dayStart`: when today began where the person is. */
export function overview(mailbox: Mailbox, post: PostStatus, dayStart: number): Overview {
  const { columns, tables, setup, views } = mailbox;
  const counts = views.counts();
  const places = new Set<Place>([...fixedPlaces, ...setup.folders.map((f): Place => `folder:${f.id}`)]);
  const labelTotals = new Map<string, number>();
  for (const [index, set] of tables.labelSets.items.entries())
    for (const label of set) labelTotals.set(label, (labelTotals.get(label) ?? 0) + counts.labelSets[index]);
  const today = { register: 0, rules: 0, inbox: 0 };
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
    labels: setup.labels.map(({ id }) => ({ label: id, total: labelTotals.get(id) ?? 0 })),
    damaged: views.list({ kind: 'damaged' }).length,
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
  };
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

const stationWords: Record<StoredTraceLine['station'], string> = {
  ...stationNames,
  import: 'Import',
  'post office': 'Post office',
};

/** The answer to “Why here”, in the order in which it was decided, then every move since. */
export async function whyHere(mailbox: Mailbox, id: number): Promise<WhyLine[]> {
  await mailbox.journalReady();
  const { columns, tables, heads, setup } = mailbox;
  if (id < 0 || id >= columns.count) return [];
  const arrival = heads.find((h) => h.added && h.ids && includes(h.ids, id));
  const exists = (by: string | null): string | null => {
    if (by === null) return null;
    const [kind, key] = [by.slice(0, by.indexOf(':')), by.slice(by.indexOf(':') + 1)];
    const list = kind === 'entry' ? setup.register : setup.rules;
    return list.some((item) => item.id === key) ? by : null;
  };
  const lines: WhyLine[] = (tables.traces.items[columns.trace[id]] ?? []).map((line) => ({
    at: null,
    who: stationWords[line.station],
    says: line.says,
    setting: exists(line.by),
    seq: null,
  }));
  const entry = (head: JournalHead): WhyLine => ({
    at: head.at,
    who: head.by === 'you' ? 'You' : head.by,
    says: `${head.says}.`,
    setting: null,
    seq: head.seq,
  });
  for (const head of heads)
    if (head !== arrival && head.moved && head.ids && includes(head.ids, id)) lines.push(entry(head));
  return lines;
}

/** Whether a sorted list of ids has one. */
function includes(ids: Int32Array, id: number): boolean {
  let low = 0;
  let high = ids.length - 1;
  while (low <= high) {
    const middle = (low + high) >> 1;
    if (ids[middle] === id) return true;
    if (ids[middle] < id) low = middle + 1;
    else high = middle - 1;
  }
  return false;
}

/** The Logbook's entries: parts of one job are one entry, newest first. */
function entries(mailbox: Mailbox): JournalHead[] {
  const out: JournalHead[] = [];
  let job = '';
  for (const head of mailbox.heads) {
    const its = jobOf(head.command);
    const last = out.at(-1);
    if (last && its === job && its !== head.command) {
      out[out.length - 1] = { ...last, seq: head.seq, says: head.says, count: last.count + head.count, at: head.at };
    } else out.push(head);
    job = its;
  }
  return out.reverse();
}

function logEntry(mailbox: Mailbox, head: JournalHead): LogEntry {
  const by = undoneBy(mailbox.heads, head.seq);
  return {
    seq: head.seq,
    at: head.at,
    by: head.by,
    says: head.says,
    count: head.count,
    undoable: canUndo(head) && by === null,
    undoneBy: by,
    undoes: head.undoes,
  };
}

/** A stretch of the Logbook, newest first. */
export function logbook(
  mailbox: Mailbox,
  who: 'all' | 'you',
  from: number,
  to: number,
): { total: number; entries: LogEntry[] } {
  const all = entries(mailbox).filter((head) => who === 'all' || head.by === 'you');
  return { total: all.length, entries: all.slice(from, to).map((head) => logEntry(mailbox, head)) };
}

/** What Undo takes back: the person's last command that was no undo and was not undone. */
export function lastUndoable(mailbox: Mailbox): LogEntry | null {
  for (let i = mailbox.heads.length - 1; i >= 0; i--) {
    const head = mailbox.heads[i];
    if (head.by !== 'you' || head.undoes !== null || head.final) continue;
    if (undoneBy(mailbox.heads, head.seq) === null) return logEntry(mailbox, head);
  }
  return null;
}

/** Everyone whom the person wrote to: the recipients of what stands in Sent. */
function writtenTo(mailbox: Mailbox): Set<string> {
  const out = new Set<string>();
  const { columns, tables, envelopes } = mailbox;
  const sent = tables.placeIndex('sent');
  for (let id = 0; id < columns.count; id++)
    if (columns.place[id] === sent) {
      const { to, cc } = envelopes.get(id);
      for (const list of [to, cc]) for (const { address } of list) out.add(addressKey(address));
    }
  return out;
}

/** What a changed setup would do to the mail here. `ruleId`: count also what that rule's conditions match. */
export async function dryRun(mailbox: Mailbox, edits: SetupEdit[], ruleId: string | null): Promise<DryRunResult> {
  await mailbox.ready();
  const next = edited(mailbox.setup, edits);
  if (!next.ok) return { ok: false, error: next.error };
  const changes = compare(candidates(mailbox), mailbox.setup, next.setup);
  const known = writtenTo(mailbox);
  const { bits } = mailbox.columns;
  const report: DryRunReport = {
    total: changes.length,
    moves: [],
    labelled: 0,
    markedRead: 0,
    wanted: { writtenTo: 0, flagged: 0, unread: 0 },
    sample: [],
    matching: null,
  };
  const moves = new Map<string, DryRunReport['moves'][number]>();
  const weight = new Map<number, number>();
  for (const change of changes) {
    if (change.addLabels.length) report.labelled++;
    if (change.markRead) report.markedRead++;
    if (change.from !== change.to) {
      const key = `${change.from}>${change.to}`;
      const move = moves.get(key) ?? { from: change.from, to: change.to, count: 0 };
      move.count++;
      moves.set(key, move);
    }
    if (change.to !== change.from && (change.to === 'junk' || change.to === 'bin')) {
      const written = known.has(addressKey(mailbox.envelopes.get(change.id).from.address));
      const flagged = (bits[change.id] & bit.flagged) !== 0;
      if (written) report.wanted.writtenTo++;
      if (flagged) report.wanted.flagged++;
      if (!(bits[change.id] & bit.read)) report.wanted.unread++;
      weight.set(change.id, (written ? 2 : 0) + (flagged ? 1 : 0));
    }
  }
  report.moves = [...moves.values()].sort((a, b) => b.count - a.count);
  const { date } = mailbox.columns;
  report.sample = changes
    .toSorted((a, b) => (weight.get(b.id) ?? 0) - (weight.get(a.id) ?? 0) || date[b.id] - date[a.id])
    .slice(0, 200)
    .map((change) => ({ row: rowOf(mailbox, change.id), to: change.to }));
  const rule = next.setup.rules.find((r) => r.id === ruleId);
  if (rule) {
    const set = new RuleSet([{ ...rule, on: true }]);
    report.matching = 0;
    for (const { envelope } of candidates(mailbox)) if (set.matching(envelope).length) report.matching++;
  }
  return { ok: true, report };
}
