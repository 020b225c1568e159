// Addresses: every place has one that can be written, sent to somebody, and opened again.
import { beforeEach, describe, expect, test, vi } from 'vitest';
import type { Place } from './router.svelte';

const bar = { pathname: '/', search: '' };
const written: { how: string; address: string }[] = [];
const heard: Record<string, () => void> = {};

function write(how: string) {
  return (_: unknown, __: string, address: string) => {
    written.push({ how, address });
    const [pathname = '', query = ''] = address.split('?');
    Object.assign(bar, { pathname, search: query && `?${query}` });
  };
}
vi.stubGlobal('location', bar);
vi.stubGlobal('history', { pushState: write('push'), replaceState: write('replace') });
vi.stubGlobal('addEventListener', (name: string, heed: () => void) => (heard[name] = heed));

async function at(address: string) {
  const [pathname = '', query = ''] = address.split('?');
  Object.assign(bar, { pathname, search: query && `?${query}` });
  vi.resetModules();
  written.length = 0;
  return import('./router.svelte');
}
beforeEach(() => void (written.length = 0));

describe('an address is read', () => {
  test.each([
    ['/', { project: '', building: '', station: 'D', step: 2 }],
    ['/heron', { project: 'heron', building: '', station: 'D', step: 2 }],
    ['/heron/lab/1', { project: 'heron', building: 'lab', step: 1 }],
    ['/heron/lab/H3?element=foot', { station: 'H', step: 3, element: 'foot' }],
    ['/heron/lab/b5?view=hours&at=winter', { station: 'B', step: 5, view: 'hours', condition: 'winter' }],
    ['/heron/lab/D11', { station: 'D', step: 11 }],
    ['/heron/lab/nonsense', { station: 'D', step: 2 }],
    ['/h%C3%A9ron/lab/D2?element=a%20b', { project: 'héron', element: 'a b' }],
  ])('%s', async (address, place) => {
    const { router } = await at(address);
    expect(router.place).toMatchObject(place);
  });
});

describe('an address is written', () => {
  test.each<[Partial<Place>, string]>([
    [{ project: '', building: '' }, '/'],
    [{ building: '' }, '/heron'],
    [{}, '/heron/lab/D2'],
    [{ step: 1 }, '/heron/lab/1'],
    [{ station: 'H', step: 3, element: 'foot' }, '/heron/lab/H3?element=foot'],
    [{ view: 'study', condition: 'winter' }, '/heron/lab/D2?view=study&at=winter'],
  ])('%o', async (change, address) => {
    const { href } = await at('/');
    const place = {
      project: 'heron',
      building: 'lab',
      station: 'D',
      step: 2,
      element: '',
      condition: '0',
      view: '',
    };
    expect(href({ ...place, ...change })).toBe(address);
  });

  test('and read again is the same place', async () => {
    for (const address of ['/p/b/A3?element=x%26y', '/p/b/G5?view=joints&at=7', '/p/b/1?view=materials']) {
      const { router, href } = await at(address);
      expect(href(router.place)).toBe(address);
    }
  });
});

describe('going', () => {
  test('keeps what is not named, and enters the history', async () => {
    const { router } = await at('/heron/lab/D2?element=east&at=winter');
    router.go({ view: 'study' });
    expect(router.place).toMatchObject({ element: 'east', condition: 'winter', view: 'study' });
    expect(written).toEqual([{ how: 'push', address: '/heron/lab/D2?element=east&view=study&at=winter' }]);
  });

  test('to another station or building leaves the element and the view behind', async () => {
    const { router } = await at('/heron/lab/D2?element=east&view=study');
    router.go({ station: 'B' });
    expect(router.place).toMatchObject({ station: 'B', element: '', view: '' });
    router.go({ element: 'north' });
    router.go({ building: 'shed' });
    expect(router.place.element).toBe('');
  });

  test('to another step leaves the view, and keeps the element', async () => {
    const { router } = await at('/heron/lab/D2?element=east&view=study');
    router.go({ step: 5 });
    expect(router.place).toMatchObject({ step: 5, element: 'east', view: '' });
  });

  test('with an element named takes that one', async () => {
    const { router } = await at('/heron/lab/D2?element=east');
    router.go({ station: 'H', step: 3, element: 'foot' });
    expect(router.place.element).toBe('foot');
  });

  test('in place of where one was does not fill the history', async () => {
    const { router } = await at('/heron/lab/D2');
    router.go({ condition: '3' }, true);
    expect(written).toEqual([{ how: 'replace', address: '/heron/lab/D2?at=3' }]);
  });

  test('back by the browser reads the address again', async () => {
    const { router } = await at('/heron/lab/D2');
    router.go({ step: 3 });
    Object.assign(bar, { pathname: '/heron/lab/D2', search: '' });
    heard.popstate?.();
    expect(router.place.step).toBe(2);
  });
});
