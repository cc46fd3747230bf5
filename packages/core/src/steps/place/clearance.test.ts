import fc from 'fast-check';
import { emptyForm } from '../../geometry/form';
import { roomOf } from '../../geometry/measures';
import { boxesMeet, orientedBox } from '../../geometry/search/meshPairs';
import { SeatList, type Seats } from '../../geometry/seats';
import { about, type Turn, turnAt } from '../../geometry/turns';
import { at, unit, type Vec3 } from '../../geometry/vec';
import { box } from '../../surfaces/make/solids';
import type { StepContext } from '../declare';
import { runClearance } from './runClearance';

const ITEM = box(1, 0.4, 0.2);

const context = {
  yieldNow: () => Promise.resolve(),
  room: () => Promise.resolve(roomOf({ ...emptyForm(), mesh: ITEM })),
} as unknown as StepContext;

interface Put {
  position: Vec3;
  size: number;
  turn: Turn;
}

function seatsOf(puts: readonly Put[]): Seats {
  const list = new SeatList(['item']);
  puts.forEach(({ position, size, turn }, id) =>
    list.add({
      ...{ growth: 0, id, dice: id, number: id, row: 0, share: 0, age: 0, life: null, variant: 0 },
      position,
      size,
      turn,
    }),
  );
  return list.done();
}

/** What keeps clear of all that were kept before it, tried one against another. */
function oneByOne(seats: Seats, room: number): number[] {
  const kept: number[] = [];
  const boxOf = (k: number) =>
    orientedBox(
      {
        mesh: ITEM,
        position: at(seats.positions, k),
        turn: turnAt(seats.turns, k),
        size: at(seats.sizes, k),
      },
      room / 2,
    );
  for (let k = 0; k < seats.ids.length; k++) if (!kept.some((other) => boxesMeet(boxOf(k), boxOf(other)))) kept.push(k);
  return kept;
}

const put = fc.record({
  position: fc.array(fc.double({ min: -3, max: 3, noNaN: true }), {
    minLength: 3,
    maxLength: 3,
  }) as unknown as fc.Arbitrary<Vec3>,
  // Tiny and huge ones among each other: a thousandth to thirty times the item.
  size: fc.oneof(fc.constantFrom(0.001, 30), fc.double({ min: 0.1, max: 2, noNaN: true })),
  turn: fc
    .tuple(fc.double({ min: -1, max: 1, noNaN: true }), fc.double({ min: -7, max: 7, noNaN: true }))
    .map(([x, angle]) => about(unit([x, 1, 0.3]), angle)),
});

test('keeps just those that trying each against each keeps, whatever their sizes', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(put, { minLength: 1, maxLength: 60 }), fc.constantFrom(0, 0.05), async (puts, room) => {
      const seats = seatsOf(puts);
      expect([...(await runClearance(seats, room, false, false, context)).ids]).toEqual(oneByOne(seats, room));
    }),
    { numRuns: 60 },
  );
});

test('a speck that comes first does not make the grid endless, nor does a giant', async () => {
  const speck: Put = { position: [0, 0, 0], size: 1e-6, turn: [0, 0, 0, 1] };
  const giant: Put = { position: [0, 500, 0], size: 900, turn: [0, 0, 0, 1] };
  const row = Array.from({ length: 500 }, (_, i): Put => ({
    position: [2 + 1.01 * i, -300, 0],
    size: 1,
    turn: [0, 0, 0, 1],
  }));
  const seats = await runClearance(seatsOf([speck, giant, ...row]), 0, false, false, context);
  expect(seats.ids.length).toBe(502);
});

test('what has no room is shrunk until it has, and left out where that is too small', async () => {
  const apart = (x: number): Put => ({ position: [x, 0, 0], size: 1, turn: [0, 0, 0, 1] });
  const seats = await runClearance(seatsOf([apart(0), apart(0.8), apart(0.01)]), 0, true, false, context);
  // The first reaches to 0.5: what stands at 0.8 may reach 0.3 to its left, three fifths of its half.
  expect([...seats.ids]).toEqual([0, 1]);
  expect(seats.sizes[3]).toBeCloseTo(0.6, 2);
});

test('the largest come first: none that is kept meets another, and what is left out meets one at least as large', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(put, { minLength: 2, maxLength: 50 }), async (puts) => {
      const seats = seatsOf(puts);
      const { ids } = await runClearance(seats, 0, false, true, context);
      const boxOf = (k: number) =>
        orientedBox({ mesh: ITEM, position: at(seats.positions, k), turn: puts[k].turn, size: at(seats.sizes, k) }, 0);
      const kept = [...ids];
      expect(kept).toEqual([...kept].sort((a, b) => a - b));
      puts.forEach(({ size }, k) => {
        const met = kept.filter((other) => other !== k && boxesMeet(boxOf(k), boxOf(other)));
        if (kept.includes(k)) expect(met).toEqual([]);
        else expect(Math.max(...met.map((other) => puts[other].size))).toBeGreaterThanOrEqual(size);
      });
    }),
    { numRuns: 60 },
  );
});
