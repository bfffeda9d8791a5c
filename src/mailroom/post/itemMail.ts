// Tasks and appointments changed, invitations answered: one command each, with the mail that follows from it.
import { replyOf } from '../../core/agenda/inviting';
import { withAnswer } from '../../core/agenda/invitation';
import { itemTitle, type Item } from '../../core/agenda/item';
import { toldOf, type Told } from '../../core/agenda/itemActs';
import type { ItemEdit } from '../../core/agenda/itemEdit';
import { AccountIndex, type Account } from '../../core/mail/account';
import { addressKey } from '../../core/mail/address';
import { isCalendar } from '../../core/mail/attachmentKind';
import { calendarType } from '../../core/writing/composing';
import { typedAddress } from '../../core/writing/recipient';
import { short } from '../../core/text/sentences';
import type { GivenAnswer, Going } from '../border/agenda';
import type { Receipt } from '../border/outcome';
import { doneBefore, nothing, Refused } from '../commands/once';
import { meaning } from '../questions/invitation';
import type { DatedSource } from '../questions/dated';
import type { Readable } from '../reading/reader';
import type { Loading, Logged } from '../state/mailState';
import type { Committing } from '../storage/committing';
import { withMail, type Following, type ToGo } from './following';

type Changing = DatedSource &
  Pick<Loading, 'journalReady'> &
  Pick<Logged, 'heads' | 'commands'> &
  Committing &
  Following;

/** So many things are changed by one command at most. */
export const mostEdits = 20_000;

/** A message that tells some people of an appointment. */
function toldMail({ to, sent }: Told, account: Account): ToGo {
  return {
    how: 'new',
    answers: [],
    account: account.id,
    to: to.map(typedAddress).join(', '),
    subject: short(sent.subject, 500),
    rich: false,
    html: '',
    text: sent.text,
    quoted: { html: '', text: '' },
    signed: true,
    files: [
      {
        name: 'invitation.ics',
        type: `${calendarType}${sent.method}`,
        bytes: new TextEncoder().encode(sent.calendar),
      },
    ],
  };
}

const toWords = (told: readonly Told[]): string => {
  const n = new Set(told.flatMap(({ to }) => to.map(({ address }) => addressKey(address)))).size;
  return n === 0 ? '' : `, and told ${n === 1 ? 'one person' : `${n} people`} by mail, which no Undo takes back`;
};

/**
 * Changes tasks and appointments, undone as one. `going`: those who are invited are told by mail at that moment; null: nobody
 * is told.
 */
export async function editItems(
  mailbox: Changing,
  command: string,
  edits: readonly ItemEdit[],
  says: string,
  going: Going | null,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  if (edits.length === 0) return nothing('Nothing to change.');
  const { accounts } = mailbox.setup;
  const own = new AccountIndex(accounts);
  const items: ItemEdit[] = [];
  const told: { told: Told; account: Account }[] = [];
  for (const { uid, item } of edits) {
    const was = mailbox.items.all.get(uid) ?? null;
    const its = toldOf(was, item, (address) => own.isOwn(address));
    // Whoever is not told keeps the version that they know.
    items.push({ uid, item: going ? its.item : item });
    const organizer = (item ?? was)?.organizer;
    const account = accounts.find(({ address }) => organizer && addressKey(address) === addressKey(organizer.address));
    if (going && account) told.push(...its.told.map((one) => ({ told: one, account })));
  }
  const words = `${says}${toWords(told.map((one) => one.told))}`;
  const mails = told.map(({ told: one, account }) => toldMail(one, account));
  const seq = await withMail(mailbox, command, mails, going ?? { due: 0, zone: 0 }, () =>
    mailbox.commit({ command, by: 'you', says: words, items }),
  );
  return { seq, count: 0, says: words };
}

type Answering = Changing & Readable;

/** The reply to an invitation, from the account that is invited or by which it came. */
function replyMail(
  item: Item,
  me: { name: string; address: string },
  answer: GivenAnswer,
  id: number,
  account: Account,
  now: number,
): ToGo | null {
  const { organizer } = item;
  if (!organizer) return null;
  const sent = replyOf(item, me, answer, now);
  return {
    ...toldMail({ to: [{ ...organizer, answer: 'needs-action', at: 0 }], sent }, account),
    how: 'reply',
    answers: [id],
  };
}

const answerDid: Record<GivenAnswer, string> = {
  accepted: 'Accepted',
  tentative: 'Accepted tentatively',
  declined: 'Declined',
};

/** Answers an invitation: it stands in the Agenda, and whoever invites is told where `going` says when. One command. */
export async function answerInvitation(
  mailbox: Answering,
  command: string,
  id: number,
  answer: GivenAnswer,
  going: Going | null,
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const read = await meaning(mailbox, id);
  if (!read || read.meaning.is !== 'invitation')
    throw new Refused(
      `${read?.meaning.is === 'wrong' ? read.meaning.says : 'This is no invitation that can be answered.'} Nothing was changed.`,
    );
  const { next, item, me } = read.meaning;
  const { accounts } = mailbox.setup;
  const whom = me ?? read.me;
  const account =
    accounts.find(({ address }) => whom && addressKey(address) === addressKey(whom.address)) ?? accounts.at(0);
  if (!account) throw new Refused('It is answered from one of your accounts: set one up first. Nothing was changed.');
  const person = whom ?? { name: account.name, address: account.address };
  const now = mailbox.now();
  const answered: Item = {
    ...withAnswer(next, person, answer, now),
    status: answer === 'tentative' ? 'tentative' : 'confirmed',
  };
  const mail = going ? replyMail(item, person, answer, id, account, now) : null;
  const says = `${answerDid[answer]} “${short(itemTitle(item))}”${mail ? `, and told ${short(item.organizer?.address ?? '', 80)} by mail, which no Undo takes back` : ''}`;
  const seq = await withMail(mailbox, command, mail ? [mail] : [], going ?? { due: 0, zone: 0 }, () =>
    mailbox.commit({ command, by: 'you', says, items: [{ uid: answered.uid, item: answered }] }),
  );
  return { seq, count: 0, says };
}

/** Takes up what a message’s calendar says: that something is called off, what somebody answered, or an appointment. */
export async function takeUpCalendar(
  mailbox: Answering,
  command: string,
  id: number,
  by: 'you' | 'Wide Sort' = 'you',
): Promise<Receipt> {
  const before = await doneBefore(mailbox, command);
  if (before) return before;
  const read = await meaning(mailbox, id);
  if (!read || !('next' in read.meaning))
    throw new Refused(
      `${read?.meaning.is === 'wrong' ? read.meaning.says : 'There is nothing in it to take up.'} Nothing was changed.`,
    );
  const { meaning: its } = read;
  const title = short(itemTitle(its.next));
  const says =
    its.is === 'cancelled'
      ? `Called off: “${title}”`
      : its.is === 'answer'
        ? `${its.from} answered “${title}”: ${its.who.answer}`
        : `Put “${title}” into the Agenda`;
  const seq = await mailbox.commit({ command, by, says, items: [{ uid: its.next.uid, item: its.next }] });
  return { seq, count: 0, says };
}

/**
 * Counts answers to invitations that came in: only from those who were invited, and of what stands in the Agenda. What is
 * none is left for the person to look at.
 */
export async function countAnswers(
  mailbox: Answering & { exclusive<T>(work: () => Promise<T>): Promise<T> },
  ids: readonly number[],
): Promise<void> {
  const waited = new Set(
    [...mailbox.items.all.values()].flatMap(({ invited }) => invited.map(({ address }) => addressKey(address))),
  );
  if (waited.size === 0) return;
  for (const id of ids) {
    const { from, attachments } = mailbox.envelopes.get(id);
    if (!waited.has(addressKey(from.address)) || !attachments.some(isCalendar)) continue;
    const read = await meaning(mailbox, id);
    if (read?.meaning.is === 'answer' && !read.meaning.already)
      await mailbox.exclusive(() => takeUpCalendar(mailbox, `answered-${mailbox.seq}-${id}`, id, 'Wide Sort'));
  }
}
