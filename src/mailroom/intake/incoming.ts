// Mail that comes in: told apart from what is here, sent down the line, stored, journalled.
import { featuresOf, withSender } from '../../core/junk/features';
import { Line } from '../../core/line/decide';
import type { KeptEnvelope } from '../storage/keptEnvelope';
import { fromLineOf } from '../../core/mail/mbox';
import { messageOfStored, type StoredMessage } from '../../core/mail/message';
import { DeepTexts } from '../../core/rules/deep';
import { parseDate } from '../../core/mail/date';
import type { TextBatch } from '../../core/search/textBatch';
import type { Place } from '../../core/mail/place';
import { bit, inkNumber } from '../state/columns';
import { readForJunk } from '../../core/junk/junkReading';
import type { MailState, Damage, Loading } from '../state/mailState';
import type { Correspondents } from '../state/correspondents';
import type { Judging } from '../junk/junkFilter';
import type { Viewing } from '../search/searching';
import type { Committing, Adding } from '../storage/committing';
import type { StoredTraceLine } from '../storage/trace';
import type { Indexed } from '../search/indexed';

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
  /** What the person had marked it as elsewhere: the junk filter learns from it. */
  marked?: 'junk' | 'good';
  /** Why it is where it is, where the line does not decide. */
  why: StoredTraceLine | null;
}

/** The moment by which a message is sorted: its Date, else that of its From_ line, else when it came in. */
function sortDate({ envelope, stored }: Incoming, now: number): number {
  if (envelope.date !== null) return envelope.date;
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
}

/**
 * Adds messages, as one command. Bytes and envelopes are written before the journal record that makes them count, so a
 * crash leaves the batch whole or not there. Throws NotWritten.
 */
export async function addMessages(
  mailbox: MailState &
    Damage &
    Pick<Loading, 'ready'> &
    Pick<Correspondents, 'people'> &
    Judging &
    Viewing &
    Indexed &
    Committing &
    Adding,
  incoming: readonly Incoming[],
  batch: Batch,
): Promise<number[]> {
  // A message is threaded before it is decided: answers in a silenced conversation pass the Inbox by.
  if (!mailbox.derived.ready) await mailbox.ready();
  const first = mailbox.columns.count;
  const now = mailbox.now();
  const line = new Line(mailbox.setup);
  const { junk, people } = mailbox;
  if (line.judges) await Promise.all([mailbox.ready(), mailbox.junk.settle()]);
  const { tables } = mailbox;
  const ids = Int32Array.from(incoming, (_, i) => first + i);
  const place = new Uint16Array(ids.length);
  const bits = new Uint8Array(ids.length);
  const labels = new Uint16Array(ids.length);
  const trace = new Uint32Array(ids.length);
  const date = new Float64Array(ids.length);
  const due = new Float64Array(ids.length);
  const ink = new Uint8Array(ids.length);
  const judged: { id: number; features: Uint32Array; score: number }[] = [];
  for (const [i, message] of incoming.entries()) {
    date[i] = sortDate(message, now);
    mailbox.derived.add(message.envelope, date[i]);
    const silenced = answersSilenced(mailbox, ids, bits, i);
    const features =
      line.judges && message.place === null
        ? withSender(
            message.features ?? featuresOf(readForJunk(messageOfStored(message.stored), message.envelope)),
            people.signalsOf(message.envelope),
          )
        : null;
    const score = features ? junk.scoreOfFeatures(features) : null;
    const writtenTo = features !== null && people.wroteTo(message.envelope.from.address);
    const decision =
      message.place === null
        ? line.decide(message.envelope, {
            silenced,
            score: score === null ? null : Math.floor(score),
            writtenTo,
            now,
            answersOwn: mailbox.derived.answersOwn(ids[i]),
            deep: new DeepTexts(() => messageOfStored(message.stored)).holds,
          })
        : null;
    if (features && score !== null) judged.push({ id: ids[i], features, score });
    place[i] = tables.placeIndex(decision?.place ?? message.place ?? 'inbox');
    labels[i] = tables.labelSetIndex(decision?.labels ?? []);
    const flag = message.flagged ? { due: message.due ?? null } : (decision?.flag ?? null);
    bits[i] = (message.read || decision?.read ? bit.read : 0) | (flag ? bit.flagged : 0);
    if (message.place !== null) bits[i] |= bit.byHand;
    if (silenced) bits[i] |= bit.silenced;
    if (message.marked) bits[i] |= message.marked === 'junk' ? bit.markedJunk : bit.markedGood;
    due[i] = flag?.due ?? 0;
    ink[i] = inkNumber(decision?.ink ?? null);
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
  await mailbox.commit({
    ...batch,
    add: { first, count: ids.length },
    ids,
    after: { place, placedAt: now, bits, labels, trace, date, due, ink },
  });
  for (const [i, message] of incoming.entries()) if (message.envelope.damage !== null) mailbox.damaged.add(first + i);
  for (const { id, features, score } of judged) junk.note(id, features, score);
  mailbox.text.append(first, incoming);
  mailbox.views.changed();
  return [...ids];
}
