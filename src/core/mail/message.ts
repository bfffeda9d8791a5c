// One message, from its bytes as they are stored to what is read of them: its structure, its text. Each is read once,
// when it is first asked for.
import { bodyText } from './body';
import type { HeaderField } from './header';
import { messageOf, type Form } from './mbox';
import { parseStructure, type Structure } from './structure';

/** A message as it is stored: the bytes as they came, and how they are wrapped. */
export interface StoredMessage {
  bytes: Uint8Array;
  form: Form;
}

/** A message (RFC 5322). Reading it never throws. */
export class Message {
  private readStructure: Structure | null = null;
  private readText: string | null = null;

  constructor(readonly raw: Uint8Array) {}

  /** Its header fields and its parts (RFC 2045). */
  get structure(): Structure {
    return (this.readStructure ??= parseStructure(this.raw));
  }

  get fields(): readonly HeaderField[] {
    return this.structure.fields;
  }

  /** The text that a reader would see. */
  get text(): string {
    return (this.readText ??= bodyText(this.raw, this.structure));
  }
}

/** The message in what is stored of it. */
export const messageOfStored = ({ bytes, form }: StoredMessage): Message => new Message(messageOf(bytes, form));
