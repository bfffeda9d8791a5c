// The automatic answer while a hold is on: what was held is answered, once to a person within some days.
//
// That it was answered is written down before it is sent: a crash between the two leaves somebody unanswered, never
// answered twice.
import { answerOf, toAnswer, type AutomaticAnswer } from '../../core/delivery/automaticAnswer';
import { Line } from '../../core/line/decide';
import { addressKey } from '../../core/mail/address';
import { clockOf } from '../../core/delivery/weekly';
import { deliveriesOf } from '../../core/delivery/delivery';
import { placeTraits } from '../../core/mail/place';
import { short } from '../../core/text/sentences';
import type { AnswerReport } from '../border/trays';
import { rowOf } from '../questions/row';
import type { Readable } from '../reading/reader';
import { arrivals, Asked, type SortedMail } from '../search/candidates';
import type { Sorting, Viewing } from '../search/searching';
import type { Loading, Logged, MailState } from '../state/mailState';
import type { Exclusive } from '../storage/committing';
import type { Stored } from '../storage/stored';
import type { PostOffice } from './postOffice';
import { messageToSend, textPart, type Sending } from './submission';

const day = 86_400_000;

/** So many people are answered within a day: whoever forges senders does not have this mailbox write to all the world. */
const mostADay = 100;

/** The command that answers somebody: by it they are known again. */
const commandOf = (address: string, seq: number): string => `automatic-answer ${addressKey(address)} ${seq}`;

/** Who was answered since a moment, by address. */
function answeredSince({ heads }: Pick<Logged, 'heads'>, since: number): Set<string> {
  const out = new Set<string>();
  for (const { command, at } of heads) {
    const [kind, address] = command.split(' ');
    if (kind === 'automatic-answer' && at > since) out.add(address);
  }
  return out;
}

type Answering = Sending & { tell(says: string): void } & Readable &
  Exclusive &
  Pick<Stored, 'envelopes'> &
  Pick<Loading, 'journalReady'> &
  Pick<Logged, 'heads'>;

const textFor = ({ texts }: AutomaticAnswer, account: string) =>
  texts.find((one) => one.account === account && one.text.trim() !== '');

/** Answers those of some messages that came in which the hold keeps. Rejects where one can’t be sent. */
export async function answerHeld(mailbox: Answering, post: PostOffice, ids: readonly number[]): Promise<void> {
  const { columns, tables, setup } = mailbox;
  const { answer, hold } = setup.delivery;
  if (!answer.on || !hold || !mailbox.postOn) return;
  const held = tables.placeIndex('held');
  const kept = ids.filter((id) => columns.place[id] === held && columns.until[id] === 0 && columns.tray[id] === 0);
  if (kept.length === 0) return;
  await mailbox.journalReady();
  await mailbox.envelopes.ensure(kept, columns.count);
  const signs = await mailbox.reader.many(kept, 'answerSigns', undefined);
  for (const [n, id] of kept.entries()) {
    const its = signs[n];
    if (its) await answerOne(mailbox, post, id, its);
  }
}

async function answerOne(
  mailbox: Answering,
  post: PostOffice,
  id: number,
  signs: Parameters<typeof toAnswer>[1],
): Promise<void> {
  const { setup } = mailbox;
  const { answer } = setup.delivery;
  const envelope = mailbox.envelopes.get(id);
  const whom = toAnswer(envelope, signs, setup.accounts);
  if (!whom.ok) return;
  const text = textFor(answer, whom.account.id);
  const now = mailbox.now();
  if (!text || answeredSince(mailbox, now - answer.days * day).has(addressKey(whom.to.address))) return;
  if (answeredSince(mailbox, now - day).size >= mostADay)
    return mailbox.tell(`${mostADay} people were answered automatically within a day: no more are, until tomorrow.`);
  const command = commandOf(whom.to.address, mailbox.seq + 1);
  const { text: body, ...rest } = answerOf(envelope, text);
  const raw = messageToSend(now, command, {
    account: whom.account,
    zone: clockOf(deliveriesOf(setup).zone, now).offsetNanoseconds / 60e9,
    to: [whom.to],
    ...rest,
    body: textPart(body),
  });
  await mailbox.exclusive(() =>
    mailbox.commit({
      command,
      by: 'Wide Sort',
      says: `Answered ${whom.to.address} automatically: “${short(rest.subject)}”`,
      // It is sent.
      final: true,
    }),
  );
  await post.submit(raw, mailbox.cursor);
}

/** So many days back it is tried. */
const daysTried = 7;
const mostNamed = 200;

/** Who would have been answered in the last seven days, had a hold been on all the time. */
export async function automaticAnswerDryRun(
  mailbox: MailState & SortedMail & Sorting & Viewing & Readable & Pick<Loading, 'ready'>,
  answer: AutomaticAnswer,
): Promise<AnswerReport> {
  const { setup, columns, derived } = mailbox;
  await mailbox.readyToSort(setup);
  const now = mailbox.now();
  const from = now - daysTried * day;
  const hold = { since: from, until: null };
  const then = {
    ...setup,
    delivery: { ...setup.delivery, hold, quiet: [], timetable: { ...setup.delivery.timetable, on: false } },
  };
  const asked = new Asked(mailbox, then, now);
  const line = new Line(then, (rules) => asked.matcher(rules));
  const held: number[] = [];
  for (const candidate of arrivals(mailbox, from)) {
    const { id, place } = candidate;
    if (columns.date[id] > now || derived.isOwn(id) || !placeTraits(place).counted) continue;
    const decided = line.decided(candidate.envelope, candidate);
    if (decided.place === 'held' && decided.tray === null && decided.putOff === null) held.push(id);
  }
  const signs = await mailbox.reader.many(held, 'answerSigns', undefined);
  const answered = new Set<string>();
  const report: AnswerReport = { days: daysTried, held: held.length, answered: [], total: 0, not: [] };
  const reasons = new Map<string, number>();
  for (const [n, id] of held.entries()) {
    const its = signs[n];
    const whom = its && toAnswer(mailbox.envelopes.get(id), its, setup.accounts);
    const why = !whom
      ? 'it can’t be read'
      : !whom.ok
        ? whom.why
        : !textFor(answer, whom.account.id)
          ? `there is no text for ${whom.account.name || whom.account.address}`
          : answered.has(addressKey(whom.to.address))
            ? 'they were answered before'
            : null;
    if (why !== null || !whom?.ok) {
      reasons.set(why ?? '', (reasons.get(why ?? '') ?? 0) + 1);
      continue;
    }
    answered.add(addressKey(whom.to.address));
    report.total++;
    if (report.answered.length < mostNamed) report.answered.push({ to: whom.to.address, row: rowOf(mailbox, id) });
  }
  report.not = [...reasons].map(([why, count]) => ({ why, count })).sort((a, b) => b.count - a.count);
  return report;
}
