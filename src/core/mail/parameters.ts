// Parameters of Content-Type and Content-Disposition (RFC 2045, section 5.1; RFC 2231).
import { decodeText } from './charset';
import { decodeEncodedWords } from './encodedWord';

/** A structured value: `text/plain; charset=utf-8` as its head, in lower case, and its parameters by lower-case name. */
export interface ParameterizedValue {
  value: string;
  parameters: Record<string, string>;
}

const parameter = /;\s*([^\s=;]+)\s*=\s*(?:"((?:[^"\\]|\\[\s\S])*)"?|([^;]*))/g;

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
  for (const [, rawName, quoted, bare] of field.slice(semicolon).matchAll(parameter)) {
    const text = quoted === undefined ? (bare ?? '').trim() : quoted.replace(/\\([\s\S])/g, '$1');
    const [, name, index, star] = /^([^*]+)(?:\*(\d+))?(\*)?$/.exec(rawName.toLowerCase()) ?? [];
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
