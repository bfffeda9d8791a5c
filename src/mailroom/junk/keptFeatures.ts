// The features of messages that were read already: whoever marks one has all the others judged again, and reading them again
// would take far longer. Packed, and up to so many bytes: the oldest leave first.
import { packedFeatures, unpackedFeatures } from '../../core/junk/packed';

/** Some 10,000 messages. */
const mostBytes = 16_000_000;

export class KeptFeatures {
  private readonly packed = new Map<number, Uint8Array>();
  private bytes = 0;

  constructor(private readonly most = mostBytes) {}

  get(id: number): Uint32Array | null {
    const packed = this.packed.get(id);
    return packed ? unpackedFeatures(packed) : null;
  }

  /** `features`: ascending. */
  set(id: number, features: Uint32Array): void {
    const packed = packedFeatures(features);
    this.bytes += packed.length - (this.packed.get(id)?.length ?? 0);
    this.packed.delete(id);
    this.packed.set(id, packed);
    for (const [oldest, { length }] of this.packed) {
      if (this.bytes <= this.most) break;
      this.packed.delete(oldest);
      this.bytes -= length;
    }
  }
}
