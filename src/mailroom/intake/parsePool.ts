// The parse workers, shared out: a batch goes to the one with the least to do. One that dies, or stays at a message for too
// long, is replaced; the message at which it was is kept without being taken apart, and the others are read.
import type { ReadBatch } from './readMessages';
import type { Form } from '../../core/mail/mbox';
import type { ParseAnswer, ParseJob, ParseStep } from './parse.worker';

export interface ParsedBatch extends ReadBatch {
  messages: Uint8Array[];
}

/** Parses a batch of stored messages; `judged`: for the junk filter too. */
export type Parse = (messages: Uint8Array<ArrayBuffer>[], form: Form, judged: boolean) => Promise<ParsedBatch>;

/** How long a worker may take for one message, in milliseconds: some, and more for a large one. */
const patience = 10_000;
const patienceForMegabyte = 1_000;
/** Workers that had nothing to do for so long are ended. */
const idle = 20_000;
/** So often in a row a worker may die before it has begun with any message. */
const mostStarts = 3;

interface Job {
  form: Form;
  messages: Uint8Array<ArrayBuffer>[];
  judged: boolean;
  given: Set<number>;
  /** The message at which the worker is; -1 before the first. */
  at: number;
  starts: number;
  resolve: (batch: ParsedBatch) => void;
  reject: (error: Error) => void;
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

  constructor(
    readonly size: number,
    private readonly make: () => Worker,
    private readonly times = { patience, idle },
  ) {}

  readonly parse: Parse = (messages, form, judged) =>
    new Promise((resolve, reject) => {
      while (this.members.length < this.size) this.members.push(this.started());
      const member = this.members.reduce((a, b) => (b.jobs.size < a.jobs.size ? b : a));
      this.give(member, { form, messages, judged, given: new Set(), at: -1, starts: 0, resolve, reject });
    });

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
        const { envelopes, features, text } = data;
        job.resolve({ envelopes, features, text, messages: job.messages });
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
    const { form, messages, judged, given } = job;
    // A copy goes: what a worker that died had with it would be gone.
    const sent: ParseJob = { job: number, form, messages, judged, given };
    member.worker.postMessage(sent);
    this.watch(member);
  }

  /** From now on a worker has its time for the message at which it is. */
  private watch(member: Member): void {
    if (member.timer) clearTimeout(member.timer);
    const [first] = member.jobs.values();
    if (!first) return void (member.timer = setTimeout(this.end, this.times.idle));
    const megabytes = (first.messages[first.at]?.length ?? 0) / 1_000_000;
    member.timer = setTimeout(() => this.replace(member), this.times.patience + megabytes * patienceForMegabyte);
  }

  /** Puts another in the place of a worker, and gives it the same again but for the message that it was at. */
  private replace(member: Member): void {
    if (member.timer) clearTimeout(member.timer);
    member.worker.terminate();
    const jobs = [...member.jobs.values()];
    const place = this.members.indexOf(member);
    if (place < 0) return;
    const next = (this.members[place] = this.started());
    for (const [n, job] of jobs.entries()) {
      if (job.at >= 0) job.given.add(job.at);
      else if (n === 0 && ++job.starts >= mostStarts) {
        job.reject(new Error('The workers that take messages apart can’t be started'));
        continue;
      }
      this.give(next, job);
    }
  }
}
