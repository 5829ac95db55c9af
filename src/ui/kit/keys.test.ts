import { keyName } from './keys';

const press = (key: string, more: Partial<Record<'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey', boolean>> = {}): string =>
  keyName({ key, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...more });

describe('a key by its name', () => {
  test('has its held keys before it; the command key counts as Ctrl', () => {
    expect(press('n')).toBe('n');
    expect(press('z', { ctrlKey: true })).toBe('Ctrl+z');
    expect(press('z', { metaKey: true })).toBe('Ctrl+z');
    expect(press('ArrowUp', { altKey: true })).toBe('Alt+ArrowUp');
    expect(press('k', { ctrlKey: true, altKey: true })).toBe('Ctrl+Alt+k');
  });

  test('says Shift only where the key itself does not show it', () => {
    expect(press('T', { shiftKey: true })).toBe('T');
    expect(press('?', { shiftKey: true })).toBe('?');
    expect(press('Tab', { shiftKey: true })).toBe('Shift+Tab');
    expect(press('Tab')).toBe('Tab');
  });
});
