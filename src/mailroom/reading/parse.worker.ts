// A parse worker: raw messages in, what is read of them out. There are as many of them as there are cores to spare.
import { readHere } from './readings';
import { readBatch, type ReadBatch } from './readMessages';
import { sentMessages, type SentWork } from './work';

/** What a parse worker is sent. */
export interface ParseJob {
  job: number;
  work: SentWork;
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
/** So many messages are read between two looks at the clock. */
const betweenLooks = 8;

scope.onmessage = async ({ data: { job, work, passed, each } }) => {
  let said = -Infinity;
  const at = (at: number) => {
    if (!each) {
      if (at % betweenLooks > 0) return;
      const now = performance.now();
      if (now - said < nowAndThen) return;
      said = now;
    }
    scope.postMessage({ job, at });
  };
  const steps = { passed, at };
  const messages = sentMessages(work);
  if (work.kind === 'all') {
    const batch = await readBatch(messages, work.form, work.judged, steps);
    const buffers = new Set([...batch.features, batch.text.tokens, batch.text.ends].map(({ buffer }) => buffer));
    scope.postMessage({ job, came: batch }, [...buffers]);
  } else {
    const stored = messages.map((bytes, n) => ({ bytes, form: work.forms[n] }));
    scope.postMessage({ job, came: await readHere(stored, work.kind, work.given, steps) });
  }
};
