// Saving a file from the page.

/** Hands bytes to the browser as a download. */
export function saveFile(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  // The download has begun once the browser has the blob; its address is not needed after that.
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
