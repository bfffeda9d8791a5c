// The host of an address.

/** The host that an address leads to, in ASCII and lower case; null where it is no address, or one without a host. */
export function hostOf(address: string): string | null {
  try {
    return new URL(address).hostname || null;
  } catch {
    return null;
  }
}
