// One writer among tabs. The tab that holds the lock has the mailbox open; the others send it their calls, and one of
// them takes over when it closes or crashes.

import { reasonOf } from '../../core/text/sentences';
import type { AnswerOf, Carry, MethodOf } from './workerSide';

/** A call on its way to the writer. */
interface Call {
  kind: 'call';
  from: string;
  n: number;
  method: string;
  args: unknown[];
}

interface Answer {
  kind: 'answer';
  to: string;
  n: number;
  value?: unknown;
  error?: string;
}

/** The writer has a call: from now on it takes what it takes. */
interface Heard {
  kind: 'heard';
  to: string;
  n: number;
}

type Wire = Call | Answer | Heard | { kind: 'event'; event: unknown } | { kind: 'writer' };

/** How long the writer may take to say that it has a call, in milliseconds: it may be at a long piece of work. */
const patience = 60_000;

/** What a channel must be able to do: a BroadcastChannel is one. */
export interface Channel {
  postMessage(message: unknown): void;
  onmessage: ((event: MessageEvent) => void) | null;
}

/** What a lock must be able to do: `navigator.locks.request` is one. Runs `hold` once the lock is had, until it ends. */
export type TakeLock = (hold: () => Promise<never>) => void;

export interface TabOptions<Api, Event> {
  /** A name that no other tab has. */
  tab: string;
  channel: Channel;
  takeLock: TakeLock;
  /** Opens the mailbox when this tab becomes the writer; `tell` goes to all tabs. */
  open: (tell: (event: Event) => void) => Promise<Api>;
  /** An event for this tab's page. */
  heard: (event: Event | { kind: 'role'; writer: boolean }) => void;
  /** How long another tab may take to say that it has a call, in milliseconds. */
  patience?: number;
}

/** A call that waits for its answer. */
interface Waiting {
  call: Call;
  resolve: (value: unknown) => void;
  reject: (error: Error) => void;
  /** Runs until the writer has it. */
  timer: ReturnType<typeof setTimeout>;
}

/**
 * Calls methods of the mailbox wherever it is open. A call that was under way when the writer went is sent again to
 * the next one; commands bear an id, so that none is done twice.
 */
export class Tabs<Api, Event> {
  private own: Api | null = null;
  private failed: string | null = null;
  private n = 0;
  private readonly waiting = new Map<number, Waiting>();

  constructor(private readonly options: TabOptions<Api, Event>) {
    options.channel.onmessage = ({ data }: MessageEvent<Wire>) => this.hear(data);
    options.takeLock(async () => {
      const tell = (event: Event) => {
        options.heard(event);
        options.channel.postMessage({ kind: 'event', event });
      };
      try {
        this.own = await options.open(tell);
      } catch (error) {
        this.failed = reasonOf(error);
      }
      options.heard({ kind: 'role', writer: true });
      options.channel.postMessage({ kind: 'writer' });
      this.resend();
      return new Promise<never>(() => undefined);
    });
  }

  /** Calls a method here or in the writer's tab. */
  readonly call: Carry<Api> = (method, args) =>
    // What comes back is what the method of that name gives, in this tab or another.
    this.carry(method, args) as Promise<AnswerOf<Api, typeof method>>;

  private carry(method: string, args: unknown[]): Promise<unknown> {
    if (this.own || this.failed) return this.run(method, args);
    const call: Call = { kind: 'call', from: this.options.tab, n: this.n++, method, args };
    return new Promise((resolve, reject) => {
      // What can't be sent throws here, and waits for nothing.
      this.options.channel.postMessage(call);
      this.waiting.set(call.n, { call, resolve, reject, timer: this.giveUpOn(call.n) });
    });
  }

  /** Ends the waiting for a call that nobody takes. */
  private giveUpOn(n: number): Waiting['timer'] {
    return setTimeout(() => {
      const waiting = this.waiting.get(n);
      this.waiting.delete(n);
      waiting?.reject(
        new Error('The tab that has the mailbox open does not answer. Close it, and this one takes its place.'),
      );
    }, this.options.patience ?? patience);
  }

  private async run(method: string, args: unknown[]): Promise<unknown> {
    if (this.failed) throw new Error(this.failed);
    const known = this.own?.[method as MethodOf<Api>] as ((...args: unknown[]) => Promise<unknown>) | undefined;
    if (!known) throw new Error(`The mailroom has no ${method}.`);
    return known(...args);
  }

  /** A new writer is there, perhaps this tab itself: what was asked and not answered is asked again. */
  private resend(): void {
    for (const [n, waiting] of this.waiting) {
      const { call, resolve, reject, timer } = waiting;
      clearTimeout(timer);
      if (this.own || this.failed) {
        this.waiting.delete(n);
        this.run(call.method, call.args).then(resolve, reject);
      } else {
        waiting.timer = this.giveUpOn(n);
        this.options.channel.postMessage(call);
      }
    }
  }

  private hear(message: Wire): void {
    switch (message.kind) {
      case 'event':
        // What other tabs send is told by the same program, one version with another.
        this.options.heard(message.event as Event);
        break;
      case 'writer':
        if (!this.own) this.resend();
        break;
      case 'call':
        if (this.own || this.failed) {
          this.options.channel.postMessage({ kind: 'heard', to: message.from, n: message.n });
          this.run(message.method, message.args).then(
            (value) => this.answer({ kind: 'answer', to: message.from, n: message.n, value }),
            (error: unknown) =>
              this.answer({
                kind: 'answer',
                to: message.from,
                n: message.n,
                error: reasonOf(error),
              }),
          );
        }
        break;
      case 'heard':
        if (message.to === this.options.tab) clearTimeout(this.waiting.get(message.n)?.timer);
        break;
      case 'answer': {
        if (message.to !== this.options.tab) return;
        const waiting = this.waiting.get(message.n);
        this.waiting.delete(message.n);
        clearTimeout(waiting?.timer);
        if (message.error === undefined) waiting?.resolve(message.value);
        else waiting?.reject(new Error(message.error));
        break;
      }
    }
  }

  private answer(answer: Answer): void {
    try {
      this.options.channel.postMessage(answer);
    } catch (error) {
      // An answer that can't be sent is an answer all the same: nobody waits for it for ever.
      const { kind, to, n } = answer;
      this.options.channel.postMessage({ kind, to, n, error: `The answer can’t be sent: ${reasonOf(error)}` });
    }
  }
}
