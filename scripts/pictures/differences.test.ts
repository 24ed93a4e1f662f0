import { PNG } from 'pngjs';
import { pictureDifference } from './differences';

/** A white picture with black rectangles. */
function picture(rectangles: [left: number, top: number, width: number, height: number][], width = 320) {
  const png = new PNG({ width, height: 160 });
  png.data.fill(255);
  for (const [left, top, across, down] of rectangles)
    for (let y = top; y < top + down; y++)
      for (let x = left; x < left + across; x++)
        png.data.fill(0, 4 * (y * width + x), 4 * (y * width + x) + 3);
  return PNG.sync.write(png);
}

test('a picture that is the same differs nowhere', () => {
  const one = picture([[10, 10, 30, 5]]);
  expect(pictureDifference([one], picture([[10, 10, 30, 5]]))).toEqual({ cells: [], box: null });
});

test('one pixel that moved is found, and where it is', () => {
  const { cells, box } = pictureDifference([picture([[100, 40, 1, 1]])], picture([[101, 40, 1, 1]]));
  expect(cells).toEqual([[6, 2]]);
  expect(box).toEqual([96, 32, 112, 48]);
});

test('what changes between two pictures of one program is left out, and nothing else', () => {
  const steady = picture([[200, 100, 40, 4]]);
  const live = picture([
    [200, 100, 40, 4],
    [20, 20, 8, 8],
  ]);
  const later = picture([
    [200, 100, 40, 4],
    [24, 22, 8, 8],
  ]);
  expect(pictureDifference([steady, live], later).box).toBeNull();
  const moved = picture([
    [200, 101, 40, 4],
    [24, 22, 8, 8],
  ]);
  expect(pictureDifference([steady, live], moved).box).toEqual([192, 96, 240, 112]);
});

test('pictures of two sizes cannot be compared, which is said', () => {
  expect(() => pictureDifference([picture([])], picture([], 300))).toThrow(
    'One picture has 320 × 160 pixels and the other 300 × 160.',
  );
});
