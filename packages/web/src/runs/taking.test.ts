import { runOf } from '../testing/runs';
import { withTaken } from './taking';

const [other, recorded, ended] = [
  runOf('other', ['x']),
  runOf('a', ['x'], { state: 'recording' }),
  runOf('a', ['x'], { state: 'ended' }),
];

test('a new run stands behind the others, and one that is known in its place', () => {
  expect(withTaken([other], recorded, false)).toEqual([other, recorded]);
  expect(withTaken([recorded, other], ended, false)).toEqual([ended, other]);
  const renamed = { ...ended, name: 'soft' };
  expect(withTaken([ended, other], renamed, false)).toEqual([renamed, other]);
});

test('a run that is over before the answer to Record has come is not recorded again', () => {
  expect(withTaken([ended, other], recorded, false)).toBeNull();
});

test('a run that goes on in another process is recorded again, once the live stream says so', () => {
  expect(withTaken([ended, other], recorded, true)).toEqual([recorded, other]);
});
