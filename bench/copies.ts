// Copies: placing them, and looking at their items at moments of their own.
import { Object3D, Vector3 } from 'three';
import { Evaluator, newGrowth, newScene, newStep, type Scene, type Step, type Track } from '@uvrex/core';
import { exponent, median, type Row } from './harness';

const cycle: Track = {
  keys: [
    { frame: 1, value: 0.02, ease: 'linear' },
    { frame: 25, value: 0.1, ease: 'linear' },
    { frame: 49, value: 0.02, ease: 'linear' },
  ],
  before: 'repeat',
  after: 'repeat',
};

/** Copies on a line, by whatever steps come after. */
function scene(count: number, radius: Track | number, ...more: Step[]): Scene {
  const made = newScene('Bench');
  const along = newStep('along', { growth: 'item', by: 'count', count, settle: 0, varyTurn: 30, vary: 0.5 });
  made.growths = [
    { ...newGrowth('Row', 0, [newStep('line', { toX: 50, points: 400 }), along, ...more]), id: 'row' },
    { ...newGrowth('Item', 1, [newStep('solid', { radius, sides: 12 })]), id: 'item', visible: false },
  ];
  return made;
}

const fresh = (): Evaluator => new Evaluator({ now: () => performance.now() });
const first = (of: Scene) => () => fresh().evaluate(of, 1);

/** What a general-purpose library does for as many: an object each, brought to its place as a matrix. */
function objects(count: number): void {
  const object = new Object3D();
  const out = new Float32Array(16 * count);
  for (let k = 0; k < count; k++) {
    object.position.set((50 * k) / count, 2, 0);
    object.quaternion.setFromAxisAngle(new Vector3(0, 1, 0), k);
    object.scale.setScalar(1);
    object.updateMatrix();
    object.matrix.toArray(out, 16 * k);
  }
}

/** Rows for the table, and exponents of cost growth. */
export async function benchCopies(): Promise<{ rows: Row[]; exponents: [string, number][] }> {
  const many = scene(100_000, 0.02);
  const rows: Row[] = [
    {
      what: '100,000 copies placed along a path, beside three Object3D matrices',
      ours: await median(first(many), 5),
      theirs: await median(() => objects(100_000), 5),
      amount: 100_000,
      unit: 'copies',
    },
  ];
  // 4,000 copies, each at a moment of its own in a cycle of 48 frames: after one round nothing is evaluated any more.
  const offset = newStep('offset', { by: 'number', time: 5 / 24 });
  const shared = scene(4000, cycle, offset);
  const evaluator = fresh();
  for (let frame = 1; frame <= 48; frame++) await evaluator.evaluate(shared, frame);
  let frame = 48;
  const perFrame = await median(() => evaluator.evaluate(shared, (frame = 1 + (frame % 48))), 15);
  const one = scene(1, cycle);
  let moment = 0;
  // Were every copy evaluated by itself, a frame would take so many evaluations of the item.
  const each = fresh();
  const single = await median(() => each.evaluate(one, (moment += 0.37), undefined, new Set(['item'])), 15);
  rows.push({
    what: '4,000 copies in a cycle of 48 frames, beside one evaluation a copy',
    ours: perFrame,
    theirs: 4000 * single,
    amount: 4000,
    unit: 'copies',
  });
  const exponents: [string, number][] = [
    [
      'placing copies',
      await exponent([12_500, 25_000, 50_000, 100_000], (count) => median(first(scene(count, 0.02)), 3)),
    ],
  ];
  return { rows, exponents };
}
