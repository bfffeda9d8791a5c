// The base subject: what is left of a subject without “Re:”, “Fwd:” and their kin (RFC 5256, section 2.1).

/** A subject without its prefixes and trailers, and whether it had any: then it names a reply or a forward. */
export interface BaseSubject {
  /** In lower case, for comparing. */
  base: string;
  reply: boolean;
}

// The ABNF of RFC 5256, section 5. A blob is a stretch in square brackets, such as a mailing list's name.
const blob = '\\[[^\\[\\]]*\\] *';
const trailer = / *\(fwd\)$/i;
const leader = new RegExp(`^(?:${blob})*(?:re|fwd?) *(?:${blob})?: *`, 'i');
const leadingBlob = new RegExp(`^${blob}(?=.)`);
const forwardHeader = /^\[fwd:(.*)\]$/i;

/** Whether none of the steps has anything to do: most subjects begin and end with a word, and this is quickly seen. */
function isPlain(text: string, from: number): boolean {
  if (from >= text.length || '[RrFf'.includes(text[from]) || ')]'.includes(text[text.length - 1])) return false;
  let before = 32;
  for (let i = from; i < text.length; i++) {
    const code = text.charCodeAt(i);
    // A blank after a blank, or any character that may be one besides the common one.
    if ((code === 32 && before === 32) || code < 32 || code === 160 || code > 5_759) return false;
    before = code;
  }
  return before !== 32;
}

/** Takes off what matches, as often as it does; null where nothing did. */
function without(pattern: RegExp, text: string): string | null {
  if (!pattern.test(text)) return null;
  let rest = text;
  while (pattern.test(rest)) rest = rest.replace(pattern, '').trim();
  return rest;
}

/** The base subject of a decoded subject: steps 1 to 6 of RFC 5256, section 2.1. */
export function baseSubject(subject: string): BaseSubject {
  const simplyReply = /^re: /i.test(subject);
  if (isPlain(subject, simplyReply ? 4 : 0))
    return { base: subject.slice(simplyReply ? 4 : 0).toLowerCase(), reply: simplyReply };
  let text = subject.replace(/\s+/g, ' ').trim();
  let reply = false;
  for (;;) {
    const untrailed = without(trailer, text);
    text = untrailed ?? text;
    reply ||= untrailed !== null;
    for (;;) {
      const unled = without(leader, text);
      reply ||= unled !== null;
      const unblobbed = without(leadingBlob, unled ?? text);
      if (unled === null && unblobbed === null) break;
      text = unblobbed ?? unled ?? text;
    }
    const forwarded = forwardHeader.exec(text);
    if (!forwarded) return { base: text.toLowerCase(), reply };
    text = forwarded[1].trim();
    reply = true;
  }
}
