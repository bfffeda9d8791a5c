// Places: where a message is, exactly one of them. Special uses of RFC 6154, and the person's folders.
import { z } from 'zod';

/** The places that are always there. */
export const fixedPlaces = ['inbox', 'archive', 'junk', 'bin', 'sent', 'drafts'] as const;
export type FixedPlace = (typeof fixedPlaces)[number];

/** A place: one of {@link fixedPlaces}, or `folder:` and a folder's id. */
export type Place = FixedPlace | `folder:${string}`;

export const placeSchema = z.custom<Place>(
  (value) =>
    typeof value === 'string' &&
    (fixedPlaces.includes(value as FixedPlace) || (value.startsWith('folder:') && value.length > 7)),
  { error: 'must be inbox, archive, junk, bin, sent, drafts or folder:ID' },
);

/** A place that the person made. */
export const folderSchema = z.object({ id: z.string().min(1), name: z.string().min(1).max(100) });
export type Folder = z.infer<typeof folderSchema>;

/** The inks that a label can have (look.md): each with its two-letter tag, so that none is told by colour alone. */
export const inks = ['sea', 'moss', 'ochre', 'brick', 'plum', 'slate', 'rust', 'teal', 'rose', 'sand'] as const;
export type Ink = (typeof inks)[number];

/** A mark, any number on a message. */
export const labelSchema = z.object({ id: z.string().min(1), name: z.string().min(1).max(100), ink: z.enum(inks) });
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
