import { describe, expect, it } from 'vitest';
import { pointNames, pointsTyped, roomAndHottest } from './thermometer.ts';

describe('points of a thermometer', () => {
  it('are the room first, then the faces and the plug, where a rig says nothing else', () => {
    expect(roomAndHottest([90, 40, 52, null])).toEqual({ room: 90, hottest: 52 });
    expect(pointNames(6)).toEqual(['ambient', 'front', 'back', 'side', 'plug', 'point 6']);
  });

  it('stand where the rig says, in any order, several at one place', () => {
    expect(roomAndHottest([41, 23.5, 52], ['front', 'room', 'plug'])).toEqual({ room: 23.5, hottest: 52 });
    expect(pointNames(4, ['front', 'room', 'front', 'device'])).toEqual(['front', 'ambient', 'front 2', 'device']);
  });

  it('without a room tell none, and a hot room is never the hottest spot', () => {
    expect(roomAndHottest([41, 44], ['front', 'back'])).toEqual({ room: null, hottest: 44 });
    expect(roomAndHottest([95, 44], ['room', 'back']).hottest).toBe(44);
    expect(roomAndHottest([], [])).toEqual({ room: null, hottest: null });
    expect(roomAndHottest([Number.NaN, null])).toEqual({ room: null, hottest: null });
  });

  it('are typed in a line', () => {
    expect(pointsTyped('Room, front;plug  back')).toEqual(['room', 'front', 'plug', 'back']);
    expect(pointsTyped('room, top')).toEqual({ unknown: 'top' });
    expect(pointsTyped('  ')).toEqual([]);
  });
});
