// What the receiving server found out about who sent a message: Authentication-Results (RFC 8601).
import type { HeaderField } from './header';

export type AuthenticationMethod = 'spf' | 'dkim' | 'dmarc';

/** The results of the newest field, the one that the person's own server added; a method that it does not name is absent. */
export type Authentication = Partial<Record<AuthenticationMethod, 'pass' | 'fail' | 'none'>>;

/** Results that say that the sender is not who it says (RFC 8601, section 2.7.1 and 2.7.2). */
const failed = new Set(['fail', 'softfail', 'hardfail', 'policy', 'permerror']);

/**
 * Reads the topmost Authentication-Results field: fields below it may have been written by the sender (RFC 8601,
 * section 5). Comments are passed over (section 2.2).
 */
export function authenticationOf(fields: readonly HeaderField[]): Authentication {
  const field = fields.find(({ key }) => key === 'authentication-results');
  if (!field) return {};
  const out: Authentication = {};
  const parts = field.value.replace(/\([^()]*\)/g, ' ').split(';');
  for (const part of parts.slice(1)) {
    const found = /^\s*(spf|dkim|dmarc)(?:\s*\/\s*\d+)?\s*=\s*([a-z]+)/i.exec(part);
    if (!found) continue;
    const method = found[1].toLowerCase() as AuthenticationMethod;
    const result = found[2].toLowerCase();
    const says = result === 'pass' ? 'pass' : failed.has(result) ? 'fail' : 'none';
    // Of several signatures one that holds is enough (RFC 6376, section 6.1).
    if (out[method] !== 'pass') out[method] = says;
  }
  return out;
}
