// Copies: placing them, and looking at their items at moments of their own.
import { Object3D, Vector3 } from 'three';
import { Evaluator, newGrowth, newScene, newStep, type Scene, type Step, type Track } from '@uvrex/core';
import { hash, random } from '../packages/core/src/fields/random';
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

/**
 * What placing comes to at least: as many seats as a path has, with the same three random numbers, one sine and cosine, two
 * interpolated vectors and all columns, in one loop that does nothing else.
 */
function bareLoop(count: number): Column[] {
  const n = 400;
  const points = new Float32Array(3 * n).map((_, i) => i % 7);
  const normals = new Float32Array(3 * n).map((_, i) => i % 3);
  const [positions, turns, sizes] = [
    new Float32Array(3 * count),
    new Float32Array(4 * count),
    new Float32Array(3 * count),
  ];
  const whole = Array.from({ length: 8 }, () => new Uint32Array(count));
  const parts = Array.from({ length: 3 }, () => new Float32Array(count));
  for (let k = 0; k < count; k++) {
    const s = (k * (n - 2)) / count;
    const i = 3 * Math.floor(s);
    const t = s - Math.floor(s);
    const dice = hash(7, 1, k);
    const angle = Math.PI * random(dice, 0, 2);
    const size = 1 - 0.5 * random(dice, 0, 1);
    const [sine, cosine] = [Math.sin(angle / 2), Math.cos(angle / 2)];
    for (let c = 0; c < 3; c++) {
      positions[3 * k + c] = points[i + c] + (points[i + 3 + c] - points[i + c]) * t;
      sizes[3 * k + c] = size;
      turns[4 * k + c] = sine * (normals[i + c] + (normals[i + 3 + c] - normals[i + c]) * t);
    }
    turns[4 * k + 3] = cosine;
    for (let c = 0; c < 8; c++) whole[c][k] = k;
    for (let c = 0; c < 3; c++) parts[c][k] = t;
  }
  return [positions, turns, sizes, ...whole, ...parts];
}
type Column = Float32Array | Uint32Array;

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
    {
      what: 'the same columns in a bare loop, beside three Object3D matrices',
      ours: await median(() => bareLoop(100_000), 5),
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
