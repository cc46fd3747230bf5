import type { Form } from '../../geometry/form';
import { after, type Turn, turnAt } from '../../geometry/turns';
import { at, type Vec3 } from '../../geometry/vec';

/**
 * A form whose points and copies turn as well as they have been moved.
 * @param moved the form with its places moved
 * @param before the form as it was
 * @param turnOf by how much what stood at a place turns
 */
export function withTurns(moved: Form, before: Form, turnOf: (place: Vec3) => Turn): Form {
  const turned = <T extends { positions: Float32Array; turns: Float32Array }>(
    now: T | null,
    old: T | null,
  ): T | null => {
    if (!now || !old) return now;
    const turns = new Float32Array(old.turns.length);
    for (let i = 0; i < turns.length / 4; i++)
      turns.set(after(turnOf(at(old.positions, i)), turnAt(old.turns, i)), 4 * i);
    return { ...now, turns };
  };
  return {
    ...moved,
    points: turned(moved.points, before.points),
    copies: turned(moved.copies, before.copies),
    seats: turned(moved.seats, before.seats),
  };
}
