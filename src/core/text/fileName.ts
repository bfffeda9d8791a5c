// Names for files.
import { trimOf } from './trim';

/** Of a longer name only so much is looked at. */
const longestRead = 1_000;

/** A name without what a file system or a shell could take for more than a name. */
export function fileName(name: string): string {
  const plain = name
    .slice(0, longestRead)
    .replace(/[\u0000-\u001f\u007f\u202a-\u202e\u2066-\u2069/\\:*?"<>|]+/g, ' ')
    .replace(/\s+/g, ' ');
  return trimOf(plain, '. ').slice(0, 120) || 'unnamed';
}

/** One name of its own for each file: the second `photo.png` is `photo (2).png`. */
export function ownNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const dot = name.lastIndexOf('.');
    const [stem, end] = dot > 0 ? [name.slice(0, dot), name.slice(dot)] : [name, ''];
    let own = name;
    for (let n = 2; taken.has(own.toLowerCase()); n++) own = `${stem} (${n})${end}`;
    taken.add(own.toLowerCase());
    return own;
  });
}
