// Places: where a message is, exactly one of them. Special uses of RFC 6154, and the person's folders.
import { idSchema } from '../data/id';
import { z } from 'zod';

/** What is particular to a place. */
export interface PlaceRow {
  /** Its name on the screen. */
  name: string;
  /** How it is called within a sentence: “to the Bin”. */
  called: string;
  /** What was done to a message that was moved there: “Archived 3 messages”; absent: “Moved 3 messages to …”. */
  moved?: string;
  /** The mailbox that a Sieve script calls so. “INBOX” is the RFC’s (RFC 9051, section 5.1). */
  mailbox: string;
  /** The line decides anew about its mail in a dry run; what the person wrote or threw away it did not sort. */
  sorted: boolean;
  /** Its mail counts in conversations and for senders: not what is junk, thrown away or unsent. */
  counted: boolean;
  /** A clear-out of all places looks into it. */
  cleared: boolean;
  /** Mail can be moved to it by hand. */
  target: boolean;
  /** Days after which its mail is deleted for good; `set`: as the person set it for junk; null: never. */
  keeps: number | 'set' | null;
  /** Where it stands in a choice of places. */
  stands: 'before the folders' | 'after the folders';
  /** Shown on the left only once it holds something. */
  onceUsed?: boolean;
}

/** The places that are always there, in their order. */
const rows = {
  inbox: {
    name: 'Inbox',
    called: 'the Inbox',
    mailbox: 'INBOX',
    sorted: true,
    counted: true,
    cleared: true,
    target: true,
    keeps: null,
    stands: 'before the folders',
  },
  held: {
    name: 'Held',
    called: 'Held',
    mailbox: 'Held',
    sorted: true,
    counted: true,
    cleared: false,
    target: false,
    keeps: null,
    stands: 'before the folders',
    onceUsed: true,
  },
  archive: {
    name: 'Archive',
    called: 'the Archive',
    moved: 'Archived',
    mailbox: 'Archive',
    sorted: true,
    counted: true,
    cleared: true,
    target: true,
    keeps: null,
    stands: 'before the folders',
  },
  junk: {
    name: 'Junk',
    called: 'Junk',
    mailbox: 'Junk',
    sorted: true,
    counted: false,
    cleared: false,
    target: true,
    keeps: 'set',
    stands: 'after the folders',
  },
  bin: {
    name: 'Bin',
    called: 'the Bin',
    moved: 'Binned',
    mailbox: 'Bin',
    sorted: false,
    counted: false,
    cleared: false,
    target: true,
    keeps: 30,
    stands: 'after the folders',
  },
  sent: {
    name: 'Sent',
    called: 'Sent',
    mailbox: 'Sent',
    sorted: false,
    counted: true,
    cleared: false,
    target: false,
    keeps: null,
    stands: 'after the folders',
  },
  drafts: {
    name: 'Drafts',
    called: 'Drafts',
    mailbox: 'Drafts',
    sorted: false,
    counted: false,
    cleared: false,
    target: false,
    keeps: null,
    stands: 'after the folders',
    onceUsed: true,
  },
} as const satisfies Record<string, PlaceRow>;

export type FixedPlace = keyof typeof rows;
export const fixedPlaces = Object.keys(rows) as FixedPlace[];

/** What all folders have in common. */
const folderRow: Omit<PlaceRow, 'name' | 'called' | 'mailbox' | 'stands'> = {
  sorted: true,
  counted: true,
  cleared: true,
  target: true,
  keeps: null,
};

/** A place: one of {@link fixedPlaces}, or `folder:` and a folder's id. */
export type Place = FixedPlace | `folder:${string}`;

export const isFixedPlace = (place: string): place is FixedPlace => Object.hasOwn(rows, place);

/** What is particular to one of the places that are always there. */
export const fixedPlace = (place: FixedPlace): PlaceRow => rows[place];

/** What is particular to a place, and to what is none: nothing counts it, nothing looks into it. */
export function placeTraits(place: string): Pick<PlaceRow, 'sorted' | 'counted' | 'cleared' | 'target' | 'keeps'> {
  if (isFixedPlace(place)) return rows[place];
  if (place.startsWith('folder:')) return folderRow;
  return { sorted: false, counted: false, cleared: false, target: false, keeps: null };
}

/** Whether mail of a place can be put off: where it waits for the person, and what is put off already. */
export const canBePutOff = (place: string): boolean => place === 'held' || placeTraits(place).cleared;

export const placeSchema = z.custom<Place>(
  (value) => typeof value === 'string' && (isFixedPlace(value) || (value.startsWith('folder:') && value.length > 7)),
  { error: `must be ${fixedPlaces.join(', ')} or folder:ID` },
);

/** What the person made and named; it may stand within another of its kind, whose id is its parent. */
export const named = { id: idSchema, name: z.string().min(1).max(100), parent: idSchema.optional() };

/** A place that the person made. */
export const folderSchema = z.object(named);
export type Folder = z.infer<typeof folderSchema>;

/** The places that a message can be moved to, in their order; `folders` in theirs. */
export const targetPlaces = (folders: readonly Folder[]): Place[] => [
  ...fixedPlaces.filter((place) => rows[place].target && rows[place].stands === 'before the folders'),
  ...folders.map(({ id }): Place => `folder:${id}`),
  ...fixedPlaces.filter((place) => rows[place].target && rows[place].stands === 'after the folders'),
];

/** A place's name on the screen; a folder that is gone is called by its id. */
export function placeName(place: Place, folders: readonly Folder[]): string {
  if (isFixedPlace(place)) return rows[place].name;
  const id = place.slice(7);
  return folders.find((folder) => folder.id === id)?.name ?? id;
}

/** How a place is called within a sentence: `the Bin`, `Weather`. */
export const placeCalled = (place: Place, folders: readonly Folder[]): string =>
  isFixedPlace(place) ? rows[place].called : placeName(place, folders);
