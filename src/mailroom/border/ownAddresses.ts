// Addresses that may be the person’s own, as they cross the border.

/** Addresses that may be the person’s own: each with the number of messages in which it stands. */
export interface OwnAddresses {
  /** How many of the newest messages were looked at. */
  looked: number;
  addresses: { address: string; name: string; count: number }[];
}
