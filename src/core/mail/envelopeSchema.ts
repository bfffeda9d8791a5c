// What is kept of a message in memory, and is checked when it comes back from storage.
import { z } from 'zod';

const addressSchema = z.object({ name: z.string(), address: z.string() });

/** What a stored envelope must look like. */
export const envelopeSchema = z.object({
  /** Message-ID without its angle brackets; empty where there is none. */
  messageId: z.string(),
  /** The Date field, milliseconds since 1970 in UTC; null where there is none that can be read. */
  date: z.number().nullable(),
  /** The zone that the Date field names, in minutes east of UTC; absent where that is UTC. */
  zone: z.number().optional(),
  /**
   * When it was received, milliseconds since 1970, where its Date field can't be gone by: there is none that can be read, or
   * it lies before there was mail, or days ahead of that. Absent elsewhere.
   */
  received: z.number().optional(),
  from: addressSchema,
  to: z.array(addressSchema),
  cc: z.array(addressSchema),
  replyTo: z.array(addressSchema),
  subject: z.string(),
  /**
   * The fields as they are written: decoded, each on a line of its own where there are several. The subject only where
   * that is another text. Absent from what was stored before rules looked at them.
   */
  written: z
    .object({
      from: z.string(),
      to: z.string(),
      cc: z.string(),
      subject: z.string().optional(),
      /** The addresses of its other authors, where From names several (RFC 5322, section 3.6.2). */
      others: z.array(z.string()).optional(),
    })
    .optional(),
  /** The identifier of List-Id, in lower case (RFC 2919); empty where the message came by no list. */
  listId: z.string(),
  /** Message-IDs that it answers, oldest first, from References and In-Reply-To (RFC 5322, section 3.6.4). */
  references: z.array(z.string()),
  /** The address by which it came: Delivered-To, or the “for” of its last Received field; empty where neither says. */
  deliveredTo: z.string().default(''),
  /** Sent by a machine of its own accord (RFC 3834, section 5). */
  automatic: z.boolean().default(false),
  /** The character set that its text declares, in lower case; empty where it declares none. */
  charset: z.string().default(''),
  /** The writing system of its subject and text, a code of ISO 15924; empty where it has no letters. */
  script: z.string().default(''),
  attachments: z.array(z.object({ name: z.string().nullable(), type: z.string(), size: z.number() })),
  /** The first words of its text, at most 160 characters. */
  preview: z.string(),
  /** Length of its plain text, in characters. */
  textLength: z.number(),
  /** Size of the raw message, in bytes. */
  size: z.number(),
  /** What is broken about it, in a sentence; null where nothing is. */
  damage: z.string().nullable(),
  /** Nobody could take it apart: it is shown as it came, and nobody tries again. Absent elsewhere. */
  unreadable: z.literal(true).optional(),
});

export type Envelope = z.infer<typeof envelopeSchema>;

export const isUnreadable = ({ unreadable }: Pick<Envelope, 'unreadable'>): boolean => unreadable === true;
