// Threading, measured beside Perl's Mail::Thread on the real corpus, and on the demo's messages.
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Conversations, MboxSplitter, messageOf, parseEnvelope, threadable, type Threadable } from '../src/core';

/** Rates in messages a second, times in milliseconds. */
export interface ThreadingFigures {
  rate: number;
  all: number;
  /** The middle one of a thousand more messages. */
  oneMore: number;
  /** Mail::Thread on the corpus; null where it is not installed. */
  perl: number | null;
}

/** How often all is threaded: less often what takes long. */
const roundsOf = (messages: number): number => (messages > 200_000 ? 5 : 25);

function perlRate(): number | null {
  try {
    const script = path.join(import.meta.dirname, '../scripts/mail-thread.pl');
    const rates = [1, 2, 3].map(() =>
      Number(execFileSync('perl', [script, '--time'], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })),
    );
    return rates.sort((a, b) => a - b)[1];
  } catch {
    return null;
  }
}

function read(files: string[]): Threadable[] {
  const out: Threadable[] = [];
  for (const file of files) {
    const splitter = new MboxSplitter();
    for (const stored of [...splitter.push(Uint8Array.from(readFileSync(file))), ...splitter.end()]) {
      const envelope = parseEnvelope(messageOf(stored, 'mbox'));
      out.push(threadable(envelope, envelope.date ?? 0));
    }
  }
  return out;
}

export function measureThreading(files: string[], besidePerl: boolean): ThreadingFigures {
  const mails = read(files);
  const times: number[] = [];
  let all = new Conversations();
  // Perl compiles before it begins; here the first rounds do the same. The middle one counts.
  const rounds = roundsOf(mails.length);
  for (let round = 0; round < rounds; round++) {
    all = new Conversations();
    const start = performance.now();
    for (const mail of mails) all.add(mail);
    times.push(performance.now() - start);
  }
  const took = times.sort((a, b) => a - b)[Math.floor(rounds / 2)];
  const more = mails.slice(-1_000).map((mail, i) => {
    const answer = { ...mail, messageId: `more-${i}@bench`, references: [...mail.references, mail.messageId] };
    const start = performance.now();
    all.add(answer);
    return performance.now() - start;
  });
  return {
    rate: mails.length / (took / 1_000),
    all: took,
    oneMore: more.sort((a, b) => a - b)[Math.floor(more.length / 2)],
    perl: besidePerl ? perlRate() : null,
  };
}
