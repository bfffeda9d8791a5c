// The desk's own settings as a part of the setup file: written beside what was decided about mail, read one by one.
import { z } from 'zod';
import { orderSchema } from '../../mailroom/border/views';
import type { Preferences } from '../state/preferences';

const share = z.number().min(10).max(90);
const byAddress = <T extends z.ZodType>(of: T) => z.record(z.string().max(500), of);

/** What each setting may be. */
const settingSchemas = {
  theme: z.enum(['system', 'light', 'dark']),
  lineFolded: z.boolean(),
  closedParts: z.array(z.string().max(100)).max(100),
  density: z.enum(['roomy', 'tight']),
  textSize: z.enum(['small', 'medium', 'large']),
  reading: z.enum(['right', 'below', 'off']),
  rowsWidth: share,
  rowsHeight: share,
  markRead: z.enum(['opened', 'seconds', 'hand']),
  markReadSeconds: z.number().int().min(1).max(600),
  goOn: z.enum(['next', 'previous', 'list']),
  rowFirst: z.enum(['people', 'subject']),
  hoverActs: z.array(z.string().max(100)).max(3),
  swipeLeft: z.string().max(100),
  swipeRight: z.string().max(100),
  groupedAll: z.boolean(),
  grouped: byAddress(z.boolean()),
  elsewhere: z.boolean(),
  orders: byAddress(orderSchema),
  newestFirst: z.boolean(),
  picture: z.enum(['stack', 'tree']),
  readAll: z.boolean(),
  counts: byAddress(z.enum(['unread', 'total'])),
  banner: z.boolean(),
  sound: z.boolean(),
  dueTold: z.boolean(),
  offers: z.boolean(),
  writeRich: z.boolean(),
  sendWait: z.number().int().min(0).max(30),
  manyPeople: z.number().int().min(2).max(1000),
} satisfies Partial<Record<keyof Preferences, z.ZodType>>;

export type DeskSetting = keyof typeof settingSchemas;
const settingNames = Object.keys(settingSchemas) as DeskSetting[];

/** What each setting is called where a file would change it. */
export const deskSettingWords: Record<DeskSetting, string> = {
  theme: 'light or dark',
  lineFolded: 'the line folded',
  closedParts: 'closed parts of the line',
  density: 'rows roomy or tight',
  textSize: 'text size',
  reading: 'reading area',
  rowsWidth: 'width of the list',
  rowsHeight: 'height of the list',
  markRead: 'when a message counts as read',
  markReadSeconds: 'seconds until it does',
  goOn: 'what opens after an act',
  rowFirst: 'what comes first in a row',
  hoverActs: 'acts on a row',
  swipeLeft: 'swipe to the left',
  swipeRight: 'swipe to the right',
  groupedAll: 'conversations everywhere',
  grouped: 'conversations by place',
  elsewhere: 'messages from other places',
  orders: 'orders of lists',
  newestFirst: 'newest message first',
  picture: 'picture of a conversation',
  readAll: 'a conversation read as a whole',
  counts: 'what is counted',
  banner: 'banners',
  sound: 'sound',
  dueTold: 'told of flags',
  offers: 'offered rules',
  writeRich: 'rich or plain text',
  sendWait: 'seconds before a message goes',
  manyPeople: 'how many people are many',
};

/** The settings that go into a setup file. */
export function deskSettings(preferences: Preferences): Partial<Preferences> {
  return Object.fromEntries(settingNames.map((name) => [name, preferences[name]]));
}

/** A setup file with the desk's settings in it. `setup`: the file without, as JSON. */
export function withDeskSettings(setup: string, preferences: Preferences): string {
  const document = JSON.parse(setup) as object;
  return `${JSON.stringify({ ...document, desk: deskSettings(preferences) }, null, 2)}\n`;
}

export interface DeskRead {
  /** The settings of the file that differ from those here. */
  changes: Partial<Preferences>;
  changed: DeskSetting[];
  /** Settings whose value is none of theirs: they are left as they are here. */
  refused: string[];
}

/** The desk's settings in a setup file: those that can be read and differ. A file without any changes none. */
export function readDeskSettings(setup: string, now: Preferences): DeskRead {
  const read: DeskRead = { changes: {}, changed: [], refused: [] };
  const document: unknown = JSON.parse(setup);
  const desk: unknown = typeof document === 'object' && document !== null && 'desk' in document ? document.desk : {};
  if (typeof desk !== 'object' || desk === null || Array.isArray(desk)) return { ...read, refused: ['desk'] };
  for (const [name, value] of Object.entries(desk)) {
    const setting = settingNames.find((one) => one === name);
    const parsed = setting && settingSchemas[setting].safeParse(value);
    if (!setting || !parsed?.success) read.refused.push(name);
    else if (JSON.stringify(parsed.data) !== JSON.stringify(now[setting])) {
      Object.assign(read.changes, { [setting]: parsed.data });
      read.changed.push(setting);
    }
  }
  return read;
}
