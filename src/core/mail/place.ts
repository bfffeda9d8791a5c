// Places: where a message is, exactly one of them. Special uses of RFC 6154, and the person's folders.
import { z } from 'zod';

/** The places that are always there. */
export const fixedPlaces = ['inbox', 'archive', 'junk', 'bin', 'sent', 'drafts'] as const;
export type FixedPlace = (typeof fixedPlaces)[number];

/** How long the Bin keeps a message before it is deleted for good, in milliseconds. */
export const binKeeps = 30 * 86_400_000;

/** A place: one of {@link fixedPlaces}, or `folder:` and a folder's id. */
export type Place = FixedPlace | `folder:${string}`;

export const placeSchema = z.custom<Place>(
  (value) =>
    typeof value === 'string' &&
    (fixedPlaces.includes(value as FixedPlace) || (value.startsWith('folder:') && value.length > 7)),
  { error: 'must be inbox, archive, junk, bin, sent, drafts or folder:ID' },
);

/** What the person made and named; it may stand within another of its kind, whose id is its parent. */
const named = { id: z.string().min(1), name: z.string().min(1).max(100), parent: z.string().min(1).optional() };

/** A place that the person made. */
export const folderSchema = z.object(named);
export type Folder = z.infer<typeof folderSchema>;

/** The inks that a label can have (look.md): each with its two-letter tag, so that none is told by colour alone. */
export const inks = ['sea', 'moss', 'ochre', 'brick', 'plum', 'slate', 'rust', 'teal', 'rose', 'sand'] as const;
export type Ink = (typeof inks)[number];

/** The two-letter tags of the inks. */
export const inkTags: Record<Ink, string> = {
  sea: 'Se',
  moss: 'Mo',
  ochre: 'Oc',
  brick: 'Br',
  plum: 'Pl',
  slate: 'Sl',
  rust: 'Ru',
  teal: 'Te',
  rose: 'Ro',
  sand: 'Sa',
};

/** A mark, any number on a message. */
export const labelSchema = z.object({
  ...named,
  ink: z.enum(inks),
  /** It inks the whole row, not only its tag. */
  row: z.boolean().optional(),
});
export type Label = z.infer<typeof labelSchema>;

const names: Record<FixedPlace, string> = {
  inbox: 'Inbox',
  archive: 'Archive',
  junk: 'Junk',
  bin: 'Bin',
  sent: 'Sent',
  drafts: 'Drafts',
};

/** A place's name on the screen; a folder that is gone is called by its id. */
export function placeName(place: Place, folders: readonly Folder[]): string {
  if (!place.startsWith('folder:')) return names[place as FixedPlace];
  const id = place.slice(7);
  return folders.find((folder) => folder.id === id)?.name ?? id;
}
