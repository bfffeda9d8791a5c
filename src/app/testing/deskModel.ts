// A simple model of the mail and of the desk: what a person sees and ticks, what an act goes to, what Undo takes back.
import type { Random } from '../../../bench/chance';
import type { Act, Filter, Order } from '../../mailroom/border/views';

/** The accounts of the model, each named as its address begins. */
export const accounts = ['a', 'b'];

const senderOf = (id: number): string => `sender${id % 5}@b.test`;

type Mark = 'place' | 'unread' | 'flagged';

/** A message as the model has it. */
export interface Message {
  id: number;
  conversation: number;
  /** The accounts under which it is found: one, or both. */
  under: string[];
  attachments: boolean;
  place: string;
  unread: boolean;
  flagged: boolean;
}

export interface Change {
  id: number;
  mark: Mark;
  before: string | boolean;
  after: string | boolean;
}

/** What is shown: a place, perhaps narrowed; `fitted`: what fitted when the filter was applied. */
export interface Shown {
  place: string;
  filter: Filter | null;
  fitted: Set<number>;
  account: string | null;
  grouped: boolean;
  order: Order;
  name: string;
}

/** The mail and the desk, as simply as can be said. */
export class DeskModel {
  readonly mail: Message[] = [];
  /** What was done here, and by what it was told apart. */
  readonly done: Change[][] = [];
  ticks = new Map<number, number[]>();
  anchor: number | null = null;
  beforeRange = new Map<number, number[]>();

  /** A new message as it is sent, and into the model. */
  write(random: Random): string {
    const id = this.mail.length;
    const answered = id > 0 && random(2) ? random(id) : null;
    const under = random(5) === 0 ? accounts : [accounts[random(2)]];
    const attachments = random(4) === 0;
    const conversation = answered === null ? id : this.mail[answered].conversation;
    this.mail.push({ id, conversation, under, attachments, place: 'inbox', unread: true, flagged: false });
    const minute = String(id % 60).padStart(2, '0');
    return [
      `From: ${senderOf(id)}`,
      `To: ${under.map((account) => `${account}@me.test`).join(', ')}`,
      `Subject: ${answered === null ? '' : 'Re: '}Matter ${conversation}`,
      `Date: Tue, 24 Nov 2026 0${Math.floor(id / 60)}:${minute}:00 +0000`,
      `Message-ID: <${id}@b.test>`,
      ...(answered === null ? [] : [`In-Reply-To: <${answered}@b.test>`]),
      ...(attachments ? ['Content-Type: application/pdf; name="a.pdf"', 'Content-Disposition: attachment'] : []),
      '',
      `Text ${id}`,
    ].join('\n');
  }

  private fits({ unread, flagged, attachments }: Message, filter: Filter | null): boolean {
    if (filter === 'unread') return unread;
    if (filter === 'flagged') return flagged;
    return filter === 'attachments' ? attachments : true;
  }

  /** The messages that are shown, newest first. */
  shown({ place, filter, fitted, account }: Omit<Shown, 'grouped' | 'order' | 'name'>): Message[] {
    return this.mail
      .filter((m) => m.place === place && (account === null || m.under.includes(account)))
      .filter((m) => fitted.has(m.id) || this.fits(m, filter))
      .reverse();
  }

  /** The rows that are shown, each with its messages. */
  rows(shown: Shown): { key: number; messages: Message[] }[] {
    const list = this.shown(shown);
    const keys = [...new Set(list.map((m) => (shown.grouped ? m.conversation : m.id)))];
    const rows = keys.map((key) => ({
      key,
      messages: list.filter((m) => (shown.grouped ? m.conversation : m.id) === key),
    }));
    // A row goes by the newest of its messages; what is alike stays newest first, unless turned.
    const sender = ({ messages }: { messages: Message[] }) => senderOf(messages[0].id);
    if (shown.order.by === 'sender')
      rows.sort((a, b) => (sender(a) === sender(b) ? 0 : sender(a) < sender(b) ? -1 : 1));
    return shown.order.turned ? rows.reverse() : rows;
  }

  setTicks(ticks: Map<number, number[]>, anchor: number | null, beforeRange = ticks): void {
    this.ticks = ticks;
    this.anchor = anchor;
    this.beforeRange = beforeRange;
  }

  untickGone(shown: Shown): void {
    const there = new Set(this.shown(shown).map((m) => m.id));
    const still = (ticks: Map<number, number[]>) =>
      new Map(
        [...ticks]
          .map(([key, ids]) => [key, ids.filter((id) => there.has(id))] as const)
          .filter(([, ids]) => ids.length),
      );
    this.setTicks(still(this.ticks), this.anchor, still(this.beforeRange));
  }

  /** Carries an act out; what it changed. */
  act(ids: readonly number[], act: Act): Change[] {
    const [mark, after]: [Mark, string | boolean] =
      act.do === 'move'
        ? ['place', act.place]
        : act.do === 'read'
          ? ['unread', !act.value]
          : ['flagged', 'value' in act && act.value];
    const changes = ids.flatMap((id) =>
      this.mail[id][mark] === after ? [] : [{ id, mark, before: this.mail[id][mark], after }],
    );
    for (const { id } of changes) Object.assign(this.mail[id], { [mark]: after });
    return changes;
  }

  /** Takes back the last that was done here of which something is left. */
  undo(): void {
    for (let changes = this.done.pop(); changes; changes = this.done.pop()) {
      const standing = changes.filter(({ id, mark, after }) => this.mail[id][mark] === after);
      for (const { id, mark, before } of standing) Object.assign(this.mail[id], { [mark]: before });
      if (standing.length) return;
    }
  }
}
