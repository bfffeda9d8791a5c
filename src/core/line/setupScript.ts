// A whole setup as a Sieve script (RFC 5228): its rules, its trays as mailboxes, and the automatic answer while a hold is on
// (RFC 5230). What a server can’t do, since it delivers nothing later than it comes, is listed.
import { roundWords } from '../delivery/rounds';
import { scriptOf } from '../rules/sieve/read';
import type { SieveScript, Unsaid, Vacation } from '../rules/sieve/write';
import type { Setup } from './setup';

/** The automatic answers of a setup while its hold is on. */
function answersOf({ delivery: { answer, hold }, accounts }: Setup): Vacation[] {
  if (!answer.on || !hold) return [];
  return accounts.flatMap(({ id, address }): Vacation[] => {
    const text = answer.texts.find((one) => one.account === id && one.text.trim() !== '');
    return text ? [{ address, days: answer.days, subject: text.subject, text: text.text, until: hold.until }] : [];
  });
}

/** What of trays and delivery a server is not told. */
function unsaidOf({ trays, delivery }: Setup): Unsaid[] {
  const { timetable, quiet, hold, answer } = delivery;
  const out: Unsaid[] = trays
    .filter(({ round }) => round.by !== 'coming')
    .map(({ name, round }) => ({
      rule: name,
      says: `“delivered ${roundWords(round)}”: Sieve has no words for it; the tray is a mailbox, into which its mail comes at once`,
    }));
  const later = 'Sieve has no words for it: a server delivers nothing later than it comes';
  if (hold) out.push({ rule: 'Hold', says: `“hold”: ${later}` });
  if (timetable.on) out.push({ rule: 'Hold', says: `“timetable”: ${later}` });
  if (quiet.length > 0) out.push({ rule: 'Hold', says: `“periods of quiet”: ${later}` });
  if (answer.on)
    out.push({
      rule: 'Hold',
      says: hold
        ? '“automatic answer”: the script answers what is let through, too'
        : '“automatic answer”: no hold is on, so the script has none',
    });
  return out;
}

/** A setup as a script, and what of it can’t be said. */
export function setupScript(setup: Setup): SieveScript {
  const { script, unsaid } = scriptOf(setup, answersOf(setup));
  return { script, unsaid: [...unsaid, ...unsaidOf(setup)] };
}
