// How places and labels are called in a script: folders by their path, labels by an IMAP keyword (RFC 9051, section 9).
import { fixedPlaces, fixedPlace, placeName, type Folder, type Place } from '../../mail/place';
import { inks, type Ink, type Label } from '../../mail/label';
import { pathsOf } from '../../mail/nesting';

/** What a setup has that rules speak of. */
export interface Named {
  folders: readonly Folder[];
  labels: readonly Label[];
  /** Trays are mailboxes to a server, by their names. */
  trays?: readonly { id: string; name: string }[];
}

const fixed = fixedPlaces.map((place): [Place, string] => [place, fixedPlace(place).mailbox]);

const inkKeyword = (ink: Ink): string => `ink-${ink}`;

/** A name as a keyword: an atom, with what may not stand in one as an underscore (RFC 9051, section 9). */
export const asKeyword = (name: string): string => name.replace(/[^\x21-\x7e]|[(){%*"\\\]]/g, '_').slice(0, 100) || '_';

/** Gives each its own name: one that is taken gets a number. */
function distinct<T>(items: readonly T[], name: (item: T) => string, taken: Iterable<string>): Map<T, string> {
  const used = new Set([...taken].map((one) => one.toLowerCase()));
  const out = new Map<T, string>();
  for (const item of items) {
    const base = name(item);
    let own = base;
    for (let n = 2; used.has(own.toLowerCase()); n++) own = `${base}_${n}`;
    used.add(own.toLowerCase());
    out.set(item, own);
  }
  return out;
}

/** The names of one setup after another: of those whose folders and labels are the same they are made once. */
const made = new WeakMap<Named['folders'], { labels: Named['labels']; trays: Named['trays']; names: ScriptNames }>();

/** The names of a setup's places, labels and inks in a script. */
export function namesOf({ folders, labels, trays }: Named): ScriptNames {
  const before = made.get(folders);
  if (before?.labels === labels && before.trays === trays) return before.names;
  const names = new ScriptNames({ folders, labels, trays });
  made.set(folders, { labels, trays, names });
  return names;
}

/** The names of a setup's places, labels and inks in a script, and what they stand for. */
export class ScriptNames {
  readonly mailboxes = new Map<string, Place>();
  readonly keywords = new Map<string, { label: string } | { ink: Ink }>();
  private readonly ofPlace = new Map<Place, string>();
  private readonly ofLabel = new Map<string, string>();

  private readonly ofTray = new Map<string, string>();

  constructor({ folders, labels, trays = [] }: Named) {
    const [folderPath, labelPath] = [pathsOf(folders), pathsOf(labels)];
    const paths = distinct(
      folders,
      (folder) => folderPath(folder.id).replaceAll(' / ', '/'),
      fixed.map(([, name]) => name),
    );
    for (const [place, name] of fixed) this.ofPlace.set(place, name);
    for (const [folder, name] of paths) this.ofPlace.set(`folder:${folder.id}`, name);
    for (const [place, name] of this.ofPlace) this.mailboxes.set(name.toLowerCase(), place);
    const inTrays = distinct(trays, ({ name }) => name, this.mailboxes.keys());
    for (const [tray, name] of inTrays) this.ofTray.set(tray.id, name);
    for (const ink of inks) this.keywords.set(inkKeyword(ink), { ink });
    const words = distinct(
      labels,
      (label) => asKeyword(labelPath(label.id).replaceAll(' / ', '/')),
      inks.map(inkKeyword),
    );
    for (const [label, word] of words) {
      this.ofLabel.set(label.id, word);
      this.keywords.set(word.toLowerCase(), { label: label.id });
    }
  }

  mailbox(place: Place): string {
    return this.ofPlace.get(place) ?? placeName(place, []);
  }

  tray(id: string): string {
    return this.ofTray.get(id) ?? id;
  }

  label(id: string): string {
    return this.ofLabel.get(id) ?? asKeyword(id);
  }

  ink(ink: Ink): string {
    return inkKeyword(ink);
  }
}
