// The parse workers, shared out: a batch goes to the one with the least to do.
import type { ReadBatch } from './readMessages';
import type { Form } from '../../core/mail/mbox';
import type { ParseAnswer, ParseJob } from './parse.worker';

export interface ParsedBatch extends ReadBatch {
  messages: Uint8Array[];
}

/** Parses a batch of stored messages; `judged`: for the junk filter too. Their buffers come back with the answer. */
export type Parse = (messages: Uint8Array<ArrayBuffer>[], form: Form, judged: boolean) => Promise<ParsedBatch>;

interface Member {
  worker: Worker;
  waiting: Map<number, { resolve: (batch: ParsedBatch) => void; reject: (error: Error) => void }>;
}

/** Workers that parse. They are made at the first batch, and ended by {@link ParsePool.end}. */
export class ParsePool {
  private members: Member[] = [];
  private job = 0;

  constructor(
    readonly size: number,
    private readonly make: () => Worker,
  ) {}

  private start(): void {
    this.members = Array.from({ length: this.size }, () => {
      const member: Member = { worker: this.make(), waiting: new Map() };
      member.worker.onmessage = ({ data }: MessageEvent<ParseAnswer>) => {
        member.waiting.get(data.job)?.resolve(data);
        member.waiting.delete(data.job);
      };
      member.worker.onerror = (event) => {
        for (const { reject } of member.waiting.values()) reject(new Error(`A parse worker failed: ${event.message}`));
        member.waiting.clear();
      };
      return member;
    });
  }

  readonly parse: Parse = (messages, form, judged) => {
    if (this.members.length === 0) this.start();
    const member = this.members.reduce((a, b) => (b.waiting.size < a.waiting.size ? b : a));
    const job = this.job++;
    return new Promise((resolve, reject) => {
      member.waiting.set(job, { resolve, reject });
      const sent: ParseJob = { job, form, messages, judged };
      member.worker.postMessage(sent, [...new Set(messages.map((m) => m.buffer))]);
    });
  };

  /** Ends the workers; the next batch starts new ones. */
  end(): void {
    for (const { worker } of this.members) worker.terminate();
    this.members = [];
  }
}
