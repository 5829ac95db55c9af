import { greyOf, portableGrey, upright } from './scan';

const bytes = (...values: readonly number[]): Uint8Array => Uint8Array.from(values);

describe('pictures of pages as grey dots', () => {
  test('a bit a dot, rows filled up to whole bytes', () => {
    expect([...greyOf({ width: 3, height: 2, kind: 1, data: bytes(0b10100000, 0b01000000) }).dots]).toEqual([255, 0, 255, 0, 255, 0]);
  });
  test('colours by how bright they are seen, with and without transparency', () => {
    const rgb = greyOf({ width: 2, height: 1, kind: 2, data: bytes(255, 255, 255, 255, 0, 0) });
    expect([...rgb.dots]).toEqual([255, 76]);
    expect([...greyOf({ width: 1, height: 1, kind: 3, data: bytes(0, 255, 0, 9) }).dots]).toEqual([150]);
  });
});

describe('a page that lies on its side', () => {
  // 1 2 3
  // 4 5 6
  const page = { width: 3, height: 2, dots: bytes(1, 2, 3, 4, 5, 6) };
  test.each([
    [0, 3, [1, 2, 3, 4, 5, 6]],
    [90, 2, [4, 1, 5, 2, 6, 3]],
    [180, 3, [6, 5, 4, 3, 2, 1]],
    [270, 2, [3, 6, 2, 5, 1, 4]],
    [-90, 2, [3, 6, 2, 5, 1, 4]],
  ])('turned by %d degrees', (degrees, width, dots) => {
    const turned = upright(page, degrees);
    expect(turned.width).toBe(width);
    expect([...turned.dots]).toEqual(dots);
  });
  test('four quarters are a whole turn', () => {
    expect(upright(upright(upright(upright(page, 90), 90), 90), 90)).toEqual(page);
  });
});

test('a greymap says its size before its dots', () => {
  const map = portableGrey({ width: 2, height: 1, dots: bytes(7, 8) });
  expect(map.subarray(0, -2).toString()).toBe('P5\n2 1\n255\n');
  expect([...map.subarray(-2)]).toEqual([7, 8]);
});
