import { decodeUnlabelled } from './charset';

test('U+FFFD that stands in valid UTF-8 stays; what is no UTF-8 is windows-1252, also beside it', () => {
  expect(decodeUnlabelled(Uint8Array.of(0xef, 0xbf, 0xbd, 0xc3, 0xa9))).toBe('\ufffdé');
  expect(decodeUnlabelled(Uint8Array.of(0xef, 0xbf, 0xbd, 0xe9))).toBe('ï¿½é');
  expect(decodeUnlabelled(Uint8Array.of(0x61, 0xe9))).toBe('aé');
});
