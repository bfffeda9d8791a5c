// `junk-eval`: how good the junk filter is on somebody's mail: by cross-validation, on mail kept apart, or as one lives with
// it.
import {
  crossValidate,
  envelopeOf,
  featuresOf,
  figuresOf,
  judgeOnline,
  JunkModel,
  learnAll,
  manyRounds,
  randomFrom,
  shuffled,
  messageOfStored,
  readForJunk,
  type Example,
  type Judged,
} from '../src/core';
import { messagesOf, UsageError } from './files';
import { wholeNumber, type Options, type Output } from './options';

/** A message with the moment at which it came, milliseconds since 1970. */
type Arrived = Example & { at: number };

interface Timed {
  examples: Arrived[];
  /** Milliseconds spent on features, the larger part of scoring. */
  took: number;
}

/** Reads files of mail of one kind. `headers`: with what mailing software and servers wrote into the header. */
async function examplesOf(files: readonly string[], junk: boolean, headers: boolean, into: Timed): Promise<void> {
  for (const file of files)
    for await (const { stored, form } of messagesOf(file)) {
      const message = messageOfStored({ bytes: stored, form });
      const envelope = envelopeOf(message);
      const reading = readForJunk(message, envelope);
      const start = performance.now();
      const features = featuresOf(reading, headers);
      into.took += performance.now() - start;
      into.examples.push({ features, junk, at: envelope.received ?? envelope.date ?? 0 });
    }
}

async function read(good: string[] = [], junk: string[] = [], what: string, headers: boolean): Promise<Timed> {
  const out: Timed = { examples: [], took: 0 };
  await examplesOf(good, false, headers, out);
  await examplesOf(junk, true, headers, out);
  const kinds = new Set(out.examples.map((one) => one.junk));
  if (!kinds.has(false) || !kinds.has(true))
    throw new UsageError(
      `${what} has no ${kinds.has(false) ? 'junk' : kinds.has(true) ? 'good mail' : 'mail'} in it: both kinds are needed.`,
    );
  return out;
}

const rounded = (n: number | null): number | null => (n === null ? null : Math.round(n * 10_000) / 10_000);

/** In the order of arrival, or in one from a seed. What has no moment comes first. */
const inOrder = (examples: readonly Arrived[], seed: number | null): Arrived[] =>
  seed === null ? [...examples].sort((a, b) => a.at - b.at) : shuffled(examples, randomFrom(seed));

/** Prints one object: `auc1`, `recall0`, `recall01`, `recall05` in per cent, and messages a second. */
export async function junkEval(files: string[], options: Options, output: Output): Promise<void> {
  if (files.length)
    throw new UsageError(`junk-eval takes its files by --good, --junk and the like, not “${files[0]}”.`);
  const headers = options.headers ?? false;
  const apart = options['train-good'] ?? options['train-junk'] ?? options['test-good'] ?? options['test-junk'];
  const seed = wholeNumber(options.seed, 'seed', 1);
  let judged: Judged[];
  let marks: number | null = null;
  let trained = 0;
  let training: number;
  let scoring: number;
  if (options['errors-only'] && !options.online) throw new UsageError('--errors-only goes with --online.');
  if (options.shuffled && !options.online) throw new UsageError('--shuffled goes with --online.');
  if (apart) {
    if (options.online) throw new UsageError('--online takes --good and --junk, and keeps nothing apart.');
    if (options.good || options.junk)
      throw new UsageError('Either --good and --junk, or the four of --train and --test.');
    const train = await read(options['train-good'], options['train-junk'], 'What is to be learned from', headers);
    const test = await read(options['test-good'], options['test-junk'], 'What is to be judged', headers);
    const model = new JunkModel();
    let start = performance.now();
    learnAll(model, train.examples, manyRounds, seed);
    training = performance.now() - start;
    trained = train.examples.length;
    start = performance.now();
    judged = test.examples.map(({ features, junk }) => ({ margin: model.margin(features), junk }));
    scoring = performance.now() - start + test.took;
  } else if (options.online) {
    const all = await read(options.good, options.junk, 'The mail given by --good and --junk', headers);
    const start = performance.now();
    ({ judged, marks } = await judgeOnline(
      inOrder(all.examples, options.shuffled ? seed : null),
      options['errors-only'] ?? false,
    ));
    training = performance.now() - start;
    trained = marks;
    scoring = training + all.took;
  } else {
    const all = await read(options.good, options.junk, 'The mail given by --good and --junk', headers);
    const folds = wholeNumber(options.folds, 'folds', 5, 2);
    const start = performance.now();
    judged = await crossValidate(all.examples, folds, seed);
    training = performance.now() - start;
    trained = all.examples.length * (folds - 1);
    const model = new JunkModel();
    const scored = performance.now();
    for (const { features } of all.examples) model.margin(features);
    scoring = performance.now() - scored + all.took;
  }
  const { good, junk, auc1, recall0, recall01, recall05 } = figuresOf(judged);
  const perSecond = (n: number, ms: number) => Math.round((n / Math.max(ms, 0.001)) * 1_000);
  output.out(
    `${JSON.stringify({
      good,
      junk,
      auc1: rounded(auc1),
      recall0: rounded(recall0),
      recall01: rounded(recall01),
      recall05: rounded(recall05),
      ...(marks === null ? {} : { marks }),
      messagesPerSecond: { training: perSecond(trained, training), scoring: perSecond(judged.length, scoring) },
    })}\n`,
  );
}
