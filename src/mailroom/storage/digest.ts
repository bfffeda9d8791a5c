// Digests of bytes, by the host.

/** The first 128 bits of some bytes' SHA-256, in hex. */
export async function digest(bytes: Uint8Array): Promise<string> {
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>));
  return Array.from(hash.subarray(0, 16), (byte) => byte.toString(16).padStart(2, '0')).join('');
}
