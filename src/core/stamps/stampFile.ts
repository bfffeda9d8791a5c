// A stamp alone as a file: its name, icon, ink and acts, and the names of what they speak of, since ids mean nothing elsewhere.
import { z } from 'zod';
import type { Action } from '../effects/effects';
import type { Folder } from '../mail/place';
import type { Label } from '../mail/label';
import { reasonOf } from '../text/sentences';
import { stampSchema, unchosen, type Stamp } from './stamp';

const namesSchema = z.object({
  folders: z.record(z.string(), z.string().max(200)).default({}),
  labels: z.record(z.string(), z.string().max(200)).default({}),
  trays: z.record(z.string(), z.string().max(200)).default({}),
  blocks: z.record(z.string(), z.string().max(200)).default({}),
});

const fileSchema = z.object({
  format: z.literal('wide-sort-stamp'),
  version: z.literal(1),
  stamp: stampSchema,
  names: namesSchema,
});

type Named = readonly { id: string; name: string }[];
/** What of a setup stamps speak of. */
export interface StampNames {
  folders: readonly Folder[];
  labels: readonly Label[];
  trays: Named;
  blocks: Named;
}

/** A stamp as a file. */
export function stampFile(stamp: Stamp, setup: StampNames): string {
  const names: z.infer<typeof namesSchema> = { folders: {}, labels: {}, trays: {}, blocks: {} };
  const note = (list: keyof typeof names, id: string) => {
    const name = setup[list].find((item) => item.id === id)?.name;
    if (name !== undefined) names[list][id] = name;
  };
  for (const act of stamp.acts) {
    if (act.do === 'move' && act.place.startsWith('folder:')) note('folders', act.place.slice(7));
    if (act.do === 'label' || act.do === 'unlabel') note('labels', act.label);
    if (act.do === 'tray') note('trays', act.tray);
    if (act.do === 'answer' || act.do === 'write') note('blocks', act.block);
  }
  return JSON.stringify(
    { format: 'wide-sort-stamp', version: 1, stamp, names } satisfies z.infer<typeof fileSchema>,
    null,
    2,
  );
}

/**
 * Reads a stamp from a file: what it speaks of is taken by its name where there is one of that name here, else it is to be
 * chosen when it is first used. `id`: its new id. The error says what is wrong.
 */
export function readStampFile(
  text: string,
  setup: StampNames,
  id: string,
): { ok: true; stamp: Stamp; unchosen: string[] } | { ok: false; error: string } {
  let document: unknown;
  try {
    document = JSON.parse(text.slice(0, 1_000_000));
  } catch (error) {
    return { ok: false, error: `This is no file of a stamp: ${reasonOf(error)}` };
  }
  const read = fileSchema.safeParse(document);
  if (!read.success) {
    const [{ path, message }] = read.error.issues;
    return { ok: false, error: `This is no file of a stamp: ${path.join('.') || 'the document'}: ${message}` };
  }
  const { stamp, names } = read.data;
  const missing: string[] = [];
  const here = (list: keyof StampNames, old: string, otherwise = unchosen): string => {
    const name = names[list][old];
    const found =
      name === undefined ? undefined : setup[list].find((item) => item.name.toLowerCase() === name.toLowerCase());
    if (!found && old !== otherwise && name !== undefined) missing.push(name);
    return found?.id ?? otherwise;
  };
  const acts = stamp.acts.map((act): Action => {
    switch (act.do) {
      case 'move':
        return act.place.startsWith('folder:')
          ? { ...act, place: `folder:${here('folders', act.place.slice(7))}` }
          : act;
      case 'label':
      case 'unlabel':
        return { ...act, label: here('labels', act.label) };
      case 'tray':
        return { ...act, tray: here('trays', act.tray) };
      case 'answer':
      case 'write':
        return { ...act, block: here('blocks', act.block, 'none') };
      default:
        return act;
    }
  });
  return { ok: true, stamp: { ...stamp, id, acts }, unchosen: missing };
}
