// Days and hours that stand in a text: what is offered for a task or an appointment.
import * as chrono from 'chrono-node';
import { oneLine } from '../text/oneLine';

/** A day, or a time, that stands in a text. Times are milliseconds since 1970, in the zone of the machine. */
export interface FoundDate {
  /** As it is written there. */
  text: string;
  start: number;
  /** Where a stretch is named, when it ends. */
  end: number | null;
  /** No hour is named: it is a whole day. */
  wholeDay: boolean;
}

/** So much of a text is looked through, line by line: whoever looks for dates goes back over what it has read. */
const [mostLines, longestLine, mostFound] = [200, 300, 12];

/**
 * The days and hours that stand in a text, as they read on the day on which it was written (`written`), in order; none that
 * is over by then. Each day and hour once.
 */
export function datesIn(text: string, written: number): FoundDate[] {
  const out: FoundDate[] = [];
  const seen = new Set<string>();
  for (const line of text
    .split('\n', mostLines * 4)
    .filter((one) => /\d|day|morgen|heute|tomorrow|today|tonight|noon/i.test(one) && !one.startsWith('>'))
    .slice(0, mostLines)) {
    for (const found of chrono.en.GB.parse(line.slice(0, longestLine), new Date(written), { forwardDate: true })) {
      const { start, end } = found;
      // “Now”, “March” and “10 minutes” name no day that one could be held to.
      const day = start.isCertain('day') || start.isCertain('weekday');
      const hour = start.isCertain('hour');
      if (!day && !hour) continue;
      const at = start.date().getTime();
      if (at < (hour ? written : written - 86_400_000) || at > written + 800 * 86_400_000) continue;
      const until = end && end.date().getTime() > at ? end.date().getTime() : null;
      const key = `${at} ${until}`;
      if (seen.has(key)) continue;
      seen.add(key);
      out.push({ text: oneLine(found.text), start: at, end: until, wholeDay: !hour });
      if (out.length >= mostFound) return out;
    }
  }
  return out;
}
