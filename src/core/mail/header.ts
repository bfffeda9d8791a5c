// Header fields (RFC 5322, section 2.2): found, unfolded, looked up by name.
import { decodeUnlabelled } from './charset';

const beyondAscii = /[^\0-\x7f]/;

/** One header field. Its value is read when it is first asked for: of a message's thirty fields a dozen ever are. */
export class HeaderField {
  /** The name in lower case, by which it is looked up. */
  readonly key: string;
  private read: string | null = null;

  constructor(
    /** The name as written. */
    readonly name: string,
    private readonly raw: Uint8Array,
    private readonly text: string,
    private readonly from: number,
    private readonly to: number,
  ) {
    this.key = name.toLowerCase();
  }

  /** The value, unfolded (RFC 5322, section 2.2.3), its encoded words not yet decoded. */
  get value(): string {
    return (this.read ??= this.unfold());
  }

  private unfold(): string {
    let value = this.text.slice(this.from, this.to);
    // Raw bytes above 0x7f: UTF-8 as RFC 6532 allows, else the windows-1252 that older mailers wrote.
    if (beyondAscii.test(value)) value = decodeUnlabelled(this.raw.subarray(this.from, this.to));
    return (value.includes('\n') ? value.replace(/\r?\n/g, '') : value).trim();
  }
}

/** A header block: its fields in order, and where in the bytes the body begins. */
export interface Header {
  fields: HeaderField[];
  /** Index of the first byte of the body; the length of the message where there is none. */
  bodyStart: number;
}

/** Field names are printable US-ASCII but the colon (RFC 5322, section 2.2); blanks before the colon: section 4.5. */
const fieldStart = /^[!-9;-~]+[ \t]*:/;

/** Whether a line can begin a header field. */
export function isFieldStart(line: string): boolean {
  return fieldStart.test(line);
}

/**
 * Reads the header block that begins at `start`. `text` is the byte text of `raw` (charset.ts). The block ends at the first
 * empty line or, in a damaged message, before the first line that cannot belong to a header. A "From " line at the
 * very top, left by an mbox, is passed over.
 */
export function readHeader(raw: Uint8Array, text: string, start: number, end: number): Header {
  const fields: HeaderField[] = [];
  let at = start;
  let bodyStart = end;
  let name = '';
  let from = -1;
  let to = -1;
  const finish = () => {
    if (from >= 0) fields.push(new HeaderField(name, raw, text, from, to));
    from = -1;
  };
  while (at < end) {
    let lineEnd = text.indexOf('\n', at);
    if (lineEnd < 0 || lineEnd >= end) lineEnd = end;
    const stop = lineEnd > at && text.charCodeAt(lineEnd - 1) === 13 ? lineEnd - 1 : lineEnd;
    const first = text.charCodeAt(at);
    if (stop === at) {
      bodyStart = Math.min(lineEnd + 1, end);
      break;
    }
    if (first === 32 || first === 9) {
      // A folded line; one of blanks only, right where the body should begin, is taken as the empty line it meant.
      if (from < 0) {
        bodyStart = at;
        break;
      }
      to = stop;
    } else {
      const colon = text.indexOf(':', at);
      if (colon > at && colon < stop && isFieldStart(text.slice(at, colon + 1))) {
        finish();
        name = text.slice(at, colon).trimEnd();
        from = colon + 1;
        to = stop;
      } else if (!(at === start && text.startsWith('From ', at))) {
        bodyStart = at;
        break;
      }
    }
    at = lineEnd + 1;
  }
  finish();
  return { fields, bodyStart };
}

/** The value of the first field of that name, which is given in lower case, or null. */
export function fieldValue(fields: readonly HeaderField[], name: string): string | null {
  for (const field of fields) if (field.key === name) return field.value;
  return null;
}
