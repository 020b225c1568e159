// Files a person picks, as the API takes them.
import { expect, test } from 'vitest';
import { base64 } from './file';

const read = (text: string) => Uint8Array.from(atob(text), (one) => one.charCodeAt(0));

test.each([0, 1, 2, 3, 1000, 0x8000, 0x8000 + 1, 100_000])(
  '%i bytes come out as they went in',
  async (size) => {
    const bytes = Uint8Array.from({ length: size }, (_, at) => (at * 37) % 256);
    expect(read(await base64(new File([bytes], 'hours.epw')))).toEqual(bytes);
  },
);

test('what is too large is refused by name and size, before it is read', async () => {
  const file = new File([new Uint8Array(11 * 1024 * 1024)], 'year.csv');
  await expect(base64(file)).rejects.toThrow(
    'year.csv has 11 MB; at most 10 MB are read. Nothing was changed.',
  );
});
