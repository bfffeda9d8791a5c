// `moments`: every delivery that a setup holds between two moments.
import { deliveriesOf, isoIn } from '../src/core';
import { oneFile, setupOf, UsageError } from './files';
import type { Options, Output } from './options';

/** So far apart two moments may be, in milliseconds. */
const longest = 100 * 366 * 86_400_000;

function moment(text: string | undefined, name: string): number {
  const at = text === undefined ? NaN : Date.parse(text);
  if (Number.isNaN(at)) throw new UsageError(`--${name} must be a moment, like 2026-11-24T10:00:00Z.`);
  return at;
}

/** A line for each delivery, in their order: the rounds of trays, hours that begin and fixed times of the timetable. */
export async function moments(files: readonly string[], options: Options, output: Output): Promise<void> {
  const setup = await setupOf(oneFile(files, 'the setup'));
  const [from, to] = [moment(options.from, 'from'), moment(options.to, 'to')];
  if (to < from) throw new UsageError('--to must not be before --from.');
  if (to - from > longest) throw new UsageError('--from and --to must not be more than a hundred years apart.');
  const deliveries = deliveriesOf(setup);
  for (const { at, what, name } of deliveries.between(from, to)) {
    const iso = isoIn(deliveries.zone, at);
    output.out(options.json ? `${JSON.stringify({ at: iso, what, name })}\n` : `${iso}\t${what}\t${name}\n`);
  }
}
