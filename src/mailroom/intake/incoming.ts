// Mail that comes in: told apart from what is here, sent down the line, stored, journalled.
import type { Follow, Send } from '../../core/effects/effect';
import { placedNow } from '../state/retention';
import { withSender } from '../../core/junk/senderFeatures';
import { Line, type Decision } from '../../core/line/decide';
import type { KeptEnvelope } from '../storage/keptEnvelope';
import { fromLineOf } from '../../core/mail/mbox';
import type { StoredMessage } from '../../core/mail/message';
import { parseDate } from '../../core/mail/date';
import type { TextBatch } from '../../core/search/textBatch';
import type { Place } from '../../core/mail/place';
import { bit } from '../state/columns';
import type { MailState, Damage, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import type { Committing, Adding } from '../storage/committing';
import type { Columns } from '../storage/stateRecords';
import type { StoredTraceLine } from '../storage/trace';
import { deepConditionsOf } from '../search/deepConditions';
import type { Indexed } from '../search/indexed';
import type { Readable } from '../reading/reader';
import { arrivalOf } from '../../core/effects/effects';
import type { Knowledge } from '../../core/line/stations/station';
import { type Cells, applyChanges, CellColumns } from '../state/effectColumns';

/** A message on its way in. `place` null: the line decides. */
export interface Incoming {
  stored: StoredMessage;
  envelope: KeptEnvelope;
  /** What the junk filter goes by, where that was read already. */
  features?: Uint32Array;
  /** What the text index takes in, where that was read already: one message of a batch. */
  text?: { batch: TextBatch; at: number };
  place: Place | null;
  read: boolean;
  flagged: boolean;
  /** When it is due, where its flag has a date; milliseconds since 1970. */
  due?: number;
  /** Until when it is put off, where it stands in Held; milliseconds since 1970. */
  until?: number;
  /** What the person had marked it as elsewhere: the junk filter learns from it. */
  marked?: 'junk' | 'good';
  /** Why it is where it is, where the line does not decide. */
  why: StoredTraceLine | null;
}

/** What is needed of the mailbox to take messages in. */
export type TakingIn = MailState &
  Damage &
  Pick<Loading, 'ready'> &
  Pick<Correspondents, 'people'> &
  Judging &
  Viewing &
  Readable &
  Indexed &
  Committing &
  Adding;

/** The moment by which a message is sorted: its Date, or when it was received where that can't be gone by, else that of its From_ line, else when it came in. */
function sortDate({ envelope, stored }: Incoming, now: number): number {
  const own = envelope.received ?? envelope.date;
  if (own !== null) return own;
  const line = fromLineOf(stored.bytes);
  const asctime = line === null ? null : /(?:[A-Z][a-z]{2} ){2}.*$/.exec(line);
  return (asctime && parseDate(asctime[0])) ?? now;
}

/** Whether the `i`th of a batch belongs to a silenced conversation: by what it answers, or how that began. */
function answersSilenced(
  { columns, derived }: Pick<MailState, 'columns' | 'derived'>,
  ids: Int32Array,
  bits: Uint8Array,
  i: number,
): boolean {
  const id = ids[i];
  const above = [derived.parent(id), derived.conversation[id]];
  return above.some(
    (other) =>
      other !== null &&
      other !== id &&
      ((other < ids[0] ? columns.bits[other] : bits[other - ids[0]]) & bit.silenced) !== 0,
  );
}

/** What a batch is written under. */
export interface Batch {
  command: string;
  by: 'you' | 'post office';
  says: string;
  cursor?: string;
  /** Hears, once they are in, what rules want sent of which messages. */
  sends?: (id: number, sends: readonly Send[]) => void;
  /** The same of what rules do beyond the message. */
  follows?: (id: number, follows: readonly Follow[]) => void;
}

interface Judged {
  id: number;
  features: Uint32Array;
  score: number;
}

/** What only reading a message tells: by which the junk filter goes, and whether a rule's condition holds. */
interface ReadAhead {
  features: Uint32Array;
  deep: NonNullable<Knowledge['deep']>;
}

/**
 * Reads what the line will ask of messages, before it is asked. Nothing holds for one that can't be taken apart; one whose
 * place is given is not asked about.
 */
async function readAhead(
  { reader, setup }: Readable & Pick<MailState, 'setup'>,
  incoming: readonly Incoming[],
  judges: boolean,
): Promise<(message: Incoming) => ReadAhead> {
  const decided = incoming.filter(({ place }) => place === null);
  const unread = judges ? decided.filter(({ features }) => !features) : [];
  const storedOf = (list: readonly Incoming[]) => list.map(({ stored }) => stored);
  const features = new Map<Incoming, Uint32Array | null>();
  for (const [n, read] of (await reader.of(storedOf(unread), 'features', undefined)).entries())
    features.set(unread[n], read);
  const conditions = deepConditionsOf(setup);
  const holding = new Map<Incoming, ReadonlySet<string>>();
  if (conditions.length > 0)
    for (const [n, holds] of (await reader.of(storedOf(decided), 'holding', conditions)).entries())
      holding.set(decided[n], new Set(conditions.filter((_, at) => holds?.[at]).map((one) => JSON.stringify(one))));
  return (message) => ({
    features: message.features ?? features.get(message) ?? new Uint32Array(0),
    deep: (condition) => holding.get(message)?.has(JSON.stringify(condition)) ?? false,
  });
}

/** Sends a message down the line; what the junk filter found of it goes into `judged`. */
function decide(
  { derived, junk, people }: Pick<MailState, 'derived'> & Pick<Correspondents, 'people'> & Judging,
  line: Line,
  id: number,
  { envelope }: Incoming,
  { features: own, deep }: ReadAhead,
  silenced: boolean,
  judged: Judged[],
  moments: Pick<Knowledge, 'now' | 'came' | 'arrives'>,
): Decision {
  const known: Knowledge = { ...moments, silenced, answersOwn: derived.answersOwn(id), deep };
  if (!line.judges) return line.decide(envelope, { ...known, score: null, writtenTo: false });
  const features = withSender(own, people.signalsOf(envelope));
  const score = junk.scoreOfFeatures(features);
  judged.push({ id, features, score });
  const writtenTo = people.wroteTo(envelope.from.address);
  return line.decide(envelope, { ...known, score: Math.floor(score), writtenTo });
}

/** The cells of a message that comes in: what is decided of it, and what it was elsewhere. */
function arrivedCells(message: Incoming, decision: Decision | null, silenced: boolean): Cells {
  const cells: Cells = { place: message.place ?? 'inbox', labels: [], bits: 0, due: 0, ink: 0, tray: null };
  if (decision) applyChanges(cells, arrivalOf(decision));
  if (message.read) cells.bits |= bit.read;
  if (message.flagged) {
    cells.bits |= bit.flagged;
    cells.due = message.due ?? 0;
  }
  if (message.place !== null) cells.bits |= bit.byHand;
  if (silenced) cells.bits |= bit.silenced;
  if (message.marked) cells.bits |= message.marked === 'junk' ? bit.markedJunk : bit.markedGood;
  return cells;
}

/** Of messages that come in, by their position: which are put off until when, and which were delivered later than they came. */
interface Waits {
  putOff: { i: number; until: number }[];
  delivered: { i: number; at: number }[];
}

/** The columns of messages that come in. Of trays and of what is put off only where there is any. */
function arrivedColumns(cells: CellColumns, { putOff, delivered }: Waits, first: number): Columns {
  const { tray, ...always } = cells.columns;
  const trays = tray.some((index) => index > 0) ? { tray } : {};
  const stands = delivered.length > 0 ? { delivered: new Float64Array(tray.length) } : {};
  for (const { i, at } of delivered) if (stands.delivered) stands.delivered[i] = at;
  if (putOff.length === 0) return { ...always, ...trays, ...stands };
  const until = new Float64Array(tray.length);
  const waitsFrom = new Uint32Array(tray.length);
  for (const { i, until: its } of putOff) {
    until[i] = its;
    // Whatever comes after it may answer it.
    waitsFrom[i] = first + i + 1;
  }
  return { ...always, ...trays, ...stands, until, waitsFrom };
}

/**
 * Adds messages, as one command. Bytes and envelopes are written before the journal record that makes them count, so a
 * crash leaves the batch whole or not there. Throws NotWritten.
 */
export async function addMessages(mailbox: TakingIn, incoming: readonly Incoming[], batch: Batch): Promise<number[]> {
  // A message is threaded before it is decided: answers in a silenced conversation pass the Inbox by.
  if (!mailbox.derived.ready) await mailbox.ready();
  const first = mailbox.columns.count;
  const now = mailbox.now();
  const line = new Line(mailbox.setup);
  if (line.judges) await Promise.all([mailbox.ready(), mailbox.junk.settle()]);
  const read = await readAhead(mailbox, incoming, line.judges);
  const { tables } = mailbox;
  const ids = Int32Array.from(incoming, (_, i) => first + i);
  const cells = new CellColumns(tables, ids.length);
  const trace = new Uint32Array(ids.length);
  const date = new Float64Array(ids.length);
  const judged: Judged[] = [];
  const waits: Waits = { putOff: [], delivered: [] };
  const sends: [id: number, sends: readonly Send[]][] = [];
  const follows: [id: number, follows: readonly Follow[]][] = [];
  // What the post office hands out comes now; a file may hold what came long ago.
  const momentsOf = (sent: number) => {
    const came = Math.min(sent, now);
    return { now, came, arrives: batch.by === 'post office' ? now : came };
  };
  for (const [i, message] of incoming.entries()) {
    date[i] = sortDate(message, now);
    mailbox.derived.add(message.envelope, date[i]);
    const silenced = answersSilenced(mailbox, ids, cells.bitsSoFar, i);
    const decision =
      message.place === null
        ? decide(mailbox, line, ids[i], message, read(message), silenced, judged, momentsOf(date[i]))
        : null;
    cells.put(i, arrivedCells(message, decision, silenced));
    const until = decision ? (decision.putOff && decision.place === 'held' ? decision.until : null) : message.until;
    if (until !== null && until !== undefined) waits.putOff.push({ i, until });
    if (decision?.delivered && decision.place === 'inbox') waits.delivered.push({ i, at: decision.delivered });
    if (decision?.sends.length) sends.push([ids[i], decision.sends]);
    if (decision?.follows.length) follows.push([ids[i], decision.follows]);
    trace[i] = tables.traces.add(decision?.trace ?? (message.why ? [message.why] : []));
  }
  const stored = incoming.map((m) => m.stored);
  const envelopes = incoming.map((m) => m.envelope);
  try {
    await mailbox.writeMessages(first, stored, envelopes);
  } catch (error) {
    await mailbox.takeBack(first);
    throw error;
  }
  const { command, by, says, cursor } = batch;
  await mailbox.commit({
    command,
    by,
    says,
    cursor,
    add: { first, count: ids.length },
    ids,
    after: { ...arrivedColumns(cells, waits, first), placedAt: placedNow(mailbox), trace, date },
  });
  for (const [i, message] of incoming.entries()) if (message.envelope.damage !== null) mailbox.damaged.add(first + i);
  for (const { id, features, score } of judged) mailbox.junk.note(id, features, score);
  mailbox.text.append(first, incoming);
  mailbox.views.changed();
  for (const [id, its] of sends) batch.sends?.(id, its);
  for (const [id, its] of follows) batch.follows?.(id, its);
  return [...ids];
}
