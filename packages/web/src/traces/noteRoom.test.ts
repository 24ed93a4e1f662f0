import { roomBeside } from './noteRoom';

const row = { left: 0, right: 600 };

test('notes stand at the right where there is room, else in the widest gap between the tags of regions', () => {
  expect(roomBeside([], row)).toEqual(row);
  expect(roomBeside([{ left: 100, right: 220 }], row)).toEqual({ left: 220, right: 600 });
  // A region that begins far to the right leaves the room before its tag.
  expect(roomBeside([{ left: 450, right: 560 }], row)).toEqual({ left: 0, right: 450 });
  expect(
    roomBeside(
      [
        { left: 300, right: 420 },
        { left: 30, right: 150 },
        { left: 500, right: 640 },
      ],
      row,
    ),
  ).toEqual({ left: 150, right: 300 });
  // Tags that lie over each other, or cover the row, leave none.
  expect(
    roomBeside(
      [
        { left: -20, right: 400 },
        { left: 350, right: 590 },
      ],
      row,
    ),
  ).toBeNull();
});
