// HTML read token by token, by htmlparser2: tags and texts as they stand, in time in step with its length. Its tokenizer
// alone keeps no stack of open elements, so that no nesting, however deep, costs more than its characters.
import { Tokenizer } from 'htmlparser2';

/** What is told of an HTML document, in its order. Names are in lower case, entities are decoded. */
export interface HtmlTokens {
  text?(text: string): void;
  /** `attributes`: only where {@link HtmlTokens.attributesOf} asked for them. */
  open?(name: string, attributes: ReadonlyMap<string, string>): void;
  close?(name: string): void;
  /** Whether the attributes of an element are wanted. */
  attributesOf?(name: string): boolean;
}

const none: ReadonlyMap<string, string> = new Map();

/** Reads HTML. Never throws: what is broken is read as a browser would, as far as tokens go. */
export function readHtml(html: string, tokens: HtmlTokens): void {
  let name = '';
  let attributes: Map<string, string> | null = null;
  let attribute = '';
  let value = '';
  const opened = () => {
    tokens.open?.(name, attributes ?? none);
    attributes = null;
  };
  const tokenizer = new Tokenizer(
    { decodeEntities: true },
    {
      ontext: (start, end) => tokens.text?.(html.slice(start, end)),
      ontextentity: (codepoint) => tokens.text?.(String.fromCodePoint(codepoint)),
      onopentagname: (start, end) => {
        name = html.slice(start, end).toLowerCase();
        attributes = tokens.attributesOf?.(name) ? new Map() : null;
      },
      onattribname: (start, end) => {
        attribute = attributes ? html.slice(start, end).toLowerCase() : '';
        value = '';
      },
      onattribdata: (start, end) => {
        if (attributes) value += html.slice(start, end);
      },
      onattribentity: (codepoint) => {
        if (attributes) value += String.fromCodePoint(codepoint);
      },
      // The first of two attributes of one name counts (HTML, section 13.2.5.33).
      onattribend: () => {
        if (attributes && !attributes.has(attribute)) attributes.set(attribute, value);
      },
      onopentagend: opened,
      onselfclosingtag: opened,
      onclosetag: (start, end) => tokens.close?.(html.slice(start, end).toLowerCase()),
      oncomment: () => undefined,
      oncdata: () => undefined,
      ondeclaration: () => undefined,
      onprocessinginstruction: () => undefined,
      onend: () => undefined,
    },
  );
  tokenizer.write(html);
  tokenizer.end();
}
