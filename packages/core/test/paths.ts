import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { flaws } from '../src/geometry/invariants';
import type { Paths } from '../src/geometry/paths';
import { at, type Vec3 } from '../src/geometry/vec';
import { newStep } from '../src/scene/make';
import type { ParamValue, Scene, Step } from '../src/scene/schema';
import { SHIPPED_FILES } from '../src/scene/shippedFiles';
import { sceneOf, formOf, shipForTests } from '../src/testing';

const ASSETS = join(__dirname, '../../../examples/assets');

/** Bytes of a file in the folder of assets. */
export const assetBytes = (file: string): Uint8Array => new Uint8Array(readFileSync(join(ASSETS, file)));

/** Lets the evaluators of a test file have the files that come with Uvrex. */
export const withShipped = (): void => beforeAll(() => shipForTests(async (id) => assetBytes(SHIPPED_FILES[id].file)));

export const form = async (steps: Step[], frame = 1, change: (scene: Scene) => void = () => undefined) => {
  const scene = sceneOf(steps);
  change(scene);
  const made = await formOf(scene, frame);
  expect(flaws(made)).toEqual([]);
  return made;
};
export const paths = async (steps: Step[], frame = 1, change?: (scene: Scene) => void): Promise<Paths> =>
  (await form(steps, frame, change)).paths!;
export const line = (length: number, points = 11) => newStep('line', { fromY: 0, toY: length, points });
export const circle = (points = 120, radius = 1) => newStep('arc', { radius, points });
export const last = (of: Paths, path = 0): Vec3 => at(of.positions, of.offsets[path + 1] - 1);
export const grows = (from: number, to: number): ParamValue => ({
  keys: [
    { frame: 1, value: from, ease: 'linear' },
    { frame: 101, value: to, ease: 'linear' },
  ],
  before: 'hold',
  after: 'hold',
});
