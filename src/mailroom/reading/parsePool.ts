// The parse workers, shared out: a batch goes to the one with the least to do. One that dies, or stays at a message for too
// long, is replaced; the next one says at each message that it has come to it. The one at which it stays, too, is kept
// without being taken apart, and the others are read.
import type { Form } from '../../core/mail/mbox';
import type { ParseAnswer, ParseJob, ParseStep } from './parse.worker';
import type { ReadStored } from './readings';
import type { ReadBatch } from './readMessages';
import { messagesOf, packed, type Work } from './work';

export interface ParsedBatch extends ReadBatch {
  messages: Uint8Array[];
}

/** Parses a batch of stored messages; `judged`: for the junk filter too. */
export type Parse = (messages: Uint8Array[], form: Form, judged: boolean) => Promise<ParsedBatch>;

/** Takes messages apart, away from the mailroom's own thread. */
export interface Parsing {
  parse: Parse;
  read: ReadStored;
}

/** How long a worker may take for one message, in milliseconds: some, and more for a large one. */
const patience = 10_000;
const patienceForMegabyte = 1_000;
/** Workers that had nothing to do for so long are ended. */
const idle = 20_000;
/** So often in a row a worker may die before it has begun with any message. */
const mostStarts = 3;

interface Job {
  work: Work;
  passed: Set<number>;
  /** Whether the worker says at which message it is: a worker was replaced over it. */
  each: boolean;
  /** The message at which the worker is, or was when it last said so; -1 before the first. */
  at: number;
  starts: number;
  resolve: (came: ParseAnswer['came']) => void;
  reject: (error: Error) => void;
}

/** The length of the message at which a worker is, in bytes; of the longest of those at which it may be. */
function lengthAt({ work, each, at }: Job): number {
  const from = Math.max(0, at);
  let longest = 0;
  for (const { length } of messagesOf(work).slice(from, each ? from + 1 : undefined))
    longest = Math.max(longest, length);
  return longest;
}

interface Member {
  worker: Worker;
  /** What it was given, the oldest first: that is what it is at. */
  jobs: Map<number, Job>;
  timer: ReturnType<typeof setTimeout> | null;
}

/** Workers that parse. They are made at the first batch, and ended once there was nothing to do for a while. */
export class ParsePool {
  private members: Member[] = [];
  private jobs = 0;
  private readonly times: { patience: number; idle: number };

  constructor(
    readonly size: number,
    private readonly make: () => Worker,
    times: Partial<{ patience: number; idle: number }> = {},
  ) {
    this.times = { patience, idle, ...times };
  }

  readonly parse: Parse = async (messages, form, judged) => ({
    ...((await this.done({ kind: 'all', form, messages, judged })) as ReadBatch),
    messages,
  });

  readonly read: ReadStored = async (stored, kind, given) =>
    (await this.done({ kind, stored: [...stored], given })) as Awaited<ReturnType<ReadStored>> as never;

  /** Starts the workers, so that the first who asks need not wait for that. */
  start(): void {
    while (this.members.length < this.size) this.members.push(this.started());
  }

  private done(work: Work): Promise<ParseAnswer['came']> {
    return new Promise((resolve, reject) => {
      this.start();
      const member = this.members.reduce((a, b) => (b.jobs.size < a.jobs.size ? b : a));
      this.give(member, { work, passed: new Set(), each: false, at: -1, starts: 0, resolve, reject });
    });
  }

  /** Ends the workers where none has anything to do. */
  private readonly end = (): void => {
    if (this.members.some(({ jobs }) => jobs.size > 0)) return;
    for (const { worker } of this.members) worker.terminate();
    this.members = [];
  };

  private started(): Member {
    const member: Member = { worker: this.make(), jobs: new Map(), timer: null };
    member.worker.onmessage = ({ data }: MessageEvent<ParseAnswer | ParseStep>) => {
      const job = member.jobs.get(data.job);
      if (!job) return;
      if ('at' in data) job.at = data.at;
      else {
        member.jobs.delete(data.job);
        job.resolve(data.came);
      }
      this.watch(member);
    };
    member.worker.onerror = () => this.replace(member);
    member.worker.onmessageerror = () => this.replace(member);
    return member;
  }

  private give(member: Member, job: Job): void {
    const number = this.jobs++;
    job.at = -1;
    member.jobs.set(number, job);
    const work = packed(job.work);
    const order: ParseJob = { job: number, work, passed: job.passed, each: job.each };
    member.worker.postMessage(order, [work.bytes.buffer]);
    this.watch(member);
  }

  /** From now on a worker has its time for the message at which it is. */
  private watch(member: Member): void {
    if (member.timer) clearTimeout(member.timer);
    const [first] = member.jobs.values();
    if (!first) return void (member.timer = setTimeout(this.end, this.times.idle));
    const half = (this.times.patience + (lengthAt(first) / 1_000_000) * patienceForMegabyte) / 2;
    // In two halves: where this thread was held up itself, what the worker said meanwhile is heard between them.
    member.timer = setTimeout(() => (member.timer = setTimeout(() => this.replace(member), half)), half);
  }

  /** Puts another in the place of a worker, and gives it the same again, but for the message that it is known to be at. */
  private replace(member: Member): void {
    if (member.timer) clearTimeout(member.timer);
    member.worker.terminate();
    const jobs = [...member.jobs.values()];
    const place = this.members.indexOf(member);
    if (place < 0) return;
    const next = (this.members[place] = this.started());
    for (const [n, job] of jobs.entries()) {
      if (job.at >= 0) {
        if (job.each) job.passed.add(job.at);
        job.each = true;
      } else if (n === 0 && ++job.starts >= mostStarts) {
        job.reject(new Error('The workers that take messages apart can’t be started'));
        continue;
      }
      this.give(next, job);
    }
  }
}
