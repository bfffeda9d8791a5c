// A parse worker: raw messages in, what is read of them out. There are as many of them as there are cores to spare.
import type { Form } from '../../core/mail/mbox';
import type { StoredMessage } from '../../core/mail/message';
import { readHere, type Kind, type Given } from './readings';
import { readBatch, type ReadBatch } from './readMessages';

/** What is to be done with some messages. */
export type Work =
  /** All that is kept of new ones; `judged`: for the junk filter, too. */
  | { kind: 'all'; form: Form; messages: Uint8Array<ArrayBuffer>[]; judged: boolean }
  /** One thing of stored ones. */
  | { kind: Kind; stored: StoredMessage[]; given: Given<Kind> };

/** What a parse worker is sent. */
export interface ParseJob {
  job: number;
  work: Work;
  /** Messages at which a worker did not come back: they are not taken apart. */
  passed: ReadonlySet<number>;
  /** Whether it is to say of each message that it has come to it, and not only now and then. */
  each: boolean;
}

/** What it says on its way: at which message of a job it is, or has been lately. */
export interface ParseStep {
  job: number;
  at: number;
}

/** What it answers: of each message, in their order. */
export interface ParseAnswer {
  job: number;
  came: ReadBatch | unknown[];
}

const scope = globalThis as unknown as {
  onmessage: ((event: MessageEvent<ParseJob>) => void) | null;
  postMessage(answer: ParseAnswer | ParseStep, transfer?: Transferable[]): void;
};

/** So often it says where it is, in milliseconds: to say so at each message would be a tenth of all work. */
const nowAndThen = 100;

scope.onmessage = async ({ data: { job, work, passed, each } }) => {
  let said = -Infinity;
  const at = (at: number) => {
    const now = performance.now();
    if (!each && now - said < nowAndThen) return;
    said = now;
    scope.postMessage({ job, at });
  };
  const steps = { passed, at };
  if (work.kind === 'all') {
    const batch = await readBatch(work.messages, work.form, work.judged, steps);
    const buffers = new Set([...batch.features, batch.text.tokens, batch.text.ends].map(({ buffer }) => buffer));
    scope.postMessage({ job, came: batch }, [...buffers]);
  } else scope.postMessage({ job, came: await readHere(work.stored, work.kind, work.given, steps) });
};
