// The stations of the sorting line, in their order.
import { hold } from './stations/hold';
import { inbox } from './stations/inbox';
import { junk } from './stations/junk';
import { register } from './stations/register';
import { rules } from './stations/rules';
import { trays } from './stations/trays';

export const stations = [register, junk, rules, trays, hold, inbox] as const;
export type StationId = (typeof stations)[number]['id'];

/** Who else leaves a line in a trace, and what they are called there. */
const others = { silence: 'Silenced conversation', import: 'Import', 'post office': 'Post office' } as const;
export type TraceId = StationId | keyof typeof others;

/** What those are called who leave lines in a trace. */
export const traceNames = { ...Object.fromEntries(stations.map(({ id, name }) => [id, name])), ...others } as Record<
  TraceId,
  string
>;
export const traceIds = Object.keys(traceNames) as TraceId[];
