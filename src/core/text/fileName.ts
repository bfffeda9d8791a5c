// Names for files.

/** A name without what a file system or a shell could take for more than a name. */
export function fileName(name: string): string {
  const safe = name
    .replace(/[\u0000-\u001f\u007f\u202a-\u202e\u2066-\u2069/\\:*?"<>|]+/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[. ]+|[. ]+$/g, '')
    .slice(0, 120);
  return safe || 'unnamed';
}
