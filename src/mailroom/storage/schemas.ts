// The shapes that the schemas of all records share.
import { z } from 'zod';

/** A typed array of one kind, told by its tag: one that comes from another realm is as good. */
function arrayOf<T>(tag: string): z.ZodType<T> {
  return z.custom<T>((value) => Object.prototype.toString.call(value) === `[object ${tag}]`, {
    error: `expected ${tag}`,
  });
}

export const bytes = arrayOf<Uint8Array>('Uint8Array');

export const uint16 = arrayOf<Uint16Array>('Uint16Array');

export const uint32 = arrayOf<Uint32Array>('Uint32Array');

export const int32 = arrayOf<Int32Array>('Int32Array');

export const float64 = arrayOf<Float64Array>('Float64Array');
