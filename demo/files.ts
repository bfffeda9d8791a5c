// Small true files for the demo's attachments: they open in the programs that they are for.
import { crc32, deflateSync } from 'node:zlib';
import { Random } from './random';

const encoder = new TextEncoder();

function chunk(type: string, data: Uint8Array): Buffer {
  const body = Buffer.concat([Buffer.from(type, 'latin1'), data]);
  const out = Buffer.alloc(body.length + 8);
  out.writeUInt32BE(data.length, 0);
  body.copy(out, 4);
  out.writeUInt32BE(crcOf(body), body.length + 4);
  return out;
}

/** zlib's crc32 came with Node.js 20.15; an older one gets the plain loop. */
function crcOf(data: Uint8Array): number {
  if (typeof crc32 === 'function') return crc32(data) >>> 0;
  let crc = 0xffffffff;
  for (const byte of data) {
    crc ^= byte;
    for (let i = 0; i < 8; i++) crc = (crc >>> 1) ^ (crc & 1 ? 0xedb88320 : 0);
  }
  return (crc ^ 0xffffffff) >>> 0;
}

const drawn = new Map<string, Uint8Array>();

/** One of forty pictures: bands of two colours, `width` by `height` pixels (PNG, ISO/IEC 15948). */
export function png(chance: Random, width = 96, height = 48): Uint8Array {
  const number = chance.int(1, 40);
  const key = `${number} ${width} ${height}`;
  const picture = drawn.get(key) ?? draw(new Random(number), width, height);
  drawn.set(key, picture);
  return picture;
}

function draw(random: Random, width: number, height: number): Uint8Array {
  const rows: number[] = [];
  const colours = [0, 1].map(() => [random.int(30, 220), random.int(80, 220), random.int(90, 230)]);
  const band = random.int(4, 14);
  for (let y = 0; y < height; y++) {
    rows.push(0);
    for (let x = 0; x < width; x++) rows.push(...colours[Math.floor((x + y) / band) % 2]);
  }
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 2, 0, 0, 0], 8);
  const start = Uint8Array.of(137, 80, 78, 71, 13, 10, 26, 10);
  return Uint8Array.from(
    Buffer.concat([
      start,
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(Uint8Array.from(rows))),
      chunk('IEND', new Uint8Array(0)),
    ]),
  );
}

/** A page of plain text as a PDF. */
export function pdf(lines: readonly string[]): Uint8Array {
  const text = lines
    .map((line) => `(${line.replace(/[^\x20-\x7e]/g, '?').replace(/([()\\])/g, '\\$1')}) Tj 0 -16 Td`)
    .join('\n');
  const stream = `BT /F1 11 Tf 56 780 Td\n${text}\nET`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
    `<< /Length ${stream.length} >>\nstream\n${stream}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  ];
  let out = '%PDF-1.4\n';
  const offsets = objects.map((object, i) => {
    const at = out.length;
    out += `${i + 1} 0 obj\n${object}\nendobj\n`;
    return at;
  });
  const xref = out.length;
  out += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`;
  for (const at of offsets) out += `${String(at).padStart(10, '0')} 00000 n \n`;
  out += `trailer << /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${xref}\n%%EOF\n`;
  return encoder.encode(out);
}

/** A table as CSV (RFC 4180). */
export function csv(rows: readonly (readonly (string | number)[])[]): Uint8Array {
  return encoder.encode(rows.map((row) => row.join(',')).join('\r\n') + '\r\n');
}
