import { decoderOf } from './decoder';

test.each(['windows-1252', 'iso-8859-1', 'latin1'])('%s has a euro sign, dashes and quotation marks', (label) => {
  expect(decoderOf(label).decode(Uint8Array.from([0x80, 0x20, 0x92, 0x9c, 0x96, 0xe9]))).toBe('€ ’œ–é');
});

test('other charsets are left as they are, in pieces too', () => {
  const decoder = decoderOf('utf-8');
  expect(decoder.decode(Uint8Array.from([0xe2, 0x82]), { stream: true }) + decoder.decode(Uint8Array.from([0xac]))).toBe('€');
  expect(() => decoderOf('utf-8', { fatal: true }).decode(Uint8Array.from([0xff]))).toThrow();
  expect(() => decoderOf('no-such')).toThrow();
});
