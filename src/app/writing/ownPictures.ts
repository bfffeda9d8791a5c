// The pictures within what is written, by their Content-IDs: shown from the draft’s own bytes, and from nowhere else.
const addresses = new Map<string, string>();

/** The address from which a picture is shown; null where its bytes are not here. */
export const pictureAddress = (contentId: string): string | null => addresses.get(contentId) ?? null;

export function showPicture(contentId: string, bytes: Uint8Array, type: string): void {
  if (addresses.has(contentId)) return;
  addresses.set(contentId, URL.createObjectURL(new Blob([new Uint8Array(bytes)], { type })));
}

/** Nothing is written any more: the pictures are let go. */
export function noMore(): void {
  for (const address of addresses.values()) URL.revokeObjectURL(address);
  addresses.clear();
}

/** Kinds of pictures that may stand within a text. */
export const isPicture = (type: string): boolean => /^image\/(png|jpe?g|gif|webp|bmp)$/.test(type);
