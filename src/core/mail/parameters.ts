// Parameters of Content-Type and Content-Disposition (RFC 2045, section 5.1; RFC 2231).
import { decodeText } from './charset';
import { decodeEncodedWords } from './encodedWord';

/** A structured value: `text/plain; charset=utf-8` as its head, in lower case, and its parameters by lower-case name. */
export interface ParameterizedValue {
  value: string;
  parameters: Record<string, string>;
}

/** A name and its “=”, after the semicolon at which the last one ended. */
const named = /;\s*([^\s=;]+)\s*=\s*/g;
/** Who writes more of them than this means no parameters. */
const mostParameters = 1_000;

/** A quoted string (RFC 2045, section 5.1) from behind its quotation mark, unquoted, and where it ends. */
function quotedString(field: string, start: number): { text: string; end: number } {
  let text = '';
  let from = start;
  for (let at = start; at < field.length; at++) {
    const unit = field.charCodeAt(at);
    if (unit === 0x22) return { text: text + field.slice(from, at), end: at + 1 };
    if (unit !== 0x5c || at + 1 === field.length) continue;
    text += field.slice(from, at);
    from = ++at;
  }
  return { text: text + field.slice(from), end: field.length };
}

/** The parameters of a field as they are written, one after another, without looking back. */
function* written(field: string, start: number): Generator<{ name: string; text: string }> {
  named.lastIndex = start;
  for (let n = 0; n < mostParameters; n++) {
    const found = named.exec(field);
    if (!found) return;
    const begin = named.lastIndex;
    const semicolon = field.indexOf(';', begin);
    const { text, end } =
      field[begin] === '"'
        ? quotedString(field, begin + 1)
        : { text: field.slice(begin, semicolon < 0 ? undefined : semicolon).trim(), end: semicolon };
    // Another field may have been read while this one waited.
    yield { name: found[1].toLowerCase(), text };
    if (end < 0) return;
    named.lastIndex = end;
  }
}

function percentBytes(text: string): Uint8Array {
  const out: number[] = [];
  for (let i = 0; i < text.length; i++) {
    const hex = text[i] === '%' ? Number.parseInt(text.slice(i + 1, i + 3), 16) : NaN;
    if (Number.isNaN(hex)) out.push(text.charCodeAt(i) & 0xff);
    else {
      out.push(hex);
      i += 2;
    }
  }
  return Uint8Array.from(out);
}

interface Section {
  index: number;
  encoded: boolean;
  text: string;
}

/** RFC 2231, sections 3 and 4: continuations in order, the character set from the first one. */
function joinSections(sections: Section[]): string {
  sections.sort((a, b) => a.index - b.index);
  let charset: string | null = null;
  let out = '';
  for (const [at, section] of sections.entries()) {
    let text = section.text;
    if (!section.encoded) {
      out += text;
      continue;
    }
    if (at === 0) {
      const parts = /^([^']*)'[^']*'([\s\S]*)$/.exec(text);
      if (parts) {
        charset = parts[1] || null;
        text = parts[2];
      }
    }
    out += decodeText(percentBytes(text), charset);
  }
  return out;
}

/**
 * Reads a value with parameters. Quoted strings are unquoted, RFC 2231 continuations and character sets resolved, and
 * encoded words decoded where a mailer put them against RFC 2047, section 5 (common practice, no source).
 */
export function parseParameters(field: string): ParameterizedValue {
  const semicolon = field.indexOf(';');
  const value = (semicolon < 0 ? field : field.slice(0, semicolon)).trim().toLowerCase();
  const parameters: Record<string, string> = Object.create(null);
  if (semicolon < 0) return { value, parameters };
  const sections = new Map<string, Section[]>();
  for (const { name: whole, text } of written(field, semicolon)) {
    const [, name, index, star] = /^([^*]+)(?:\*(\d+))?(\*)?$/.exec(whole) ?? [];
    if (!name) continue;
    if (index !== undefined || star) {
      const list = sections.get(name) ?? [];
      list.push({ index: Number(index ?? 0), encoded: star === '*', text });
      sections.set(name, list);
    } else parameters[name] ??= decodeEncodedWords(text);
  }
  for (const [name, list] of sections) parameters[name] = joinSections(list);
  return { value, parameters };
}
