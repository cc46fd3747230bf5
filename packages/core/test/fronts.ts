import { flaws } from '../src/geometry/invariants';
import type { Mesh } from '../src/geometry/mesh';
import { norm } from '../src/geometry/vec';
import { newStep } from '../src/scene/make';
import type { ParamValue, Step } from '../src/scene/schema';
import { form } from './paths';

export const mesh = async (steps: Step[], frame = 1): Promise<Mesh> => {
  const made = await form(steps, frame);
  expect(flaws(made)).toEqual([]);
  return made.mesh!;
};
export const sheet = (): Step => newStep('solid', { which: 'sheet', width: 2, height: 2, pieces: 40 });
export const front = (params: Record<string, ParamValue> = {}): Step => newStep('front', { soft: 0, ...params });
export const clicked = { from: 'clicked', places: [[0, 1, 0]] as never };
export const away = (of: Mesh, i: number): number =>
  norm(of.positions[3 * i], of.positions[3 * i + 1] - 1, of.positions[3 * i + 2]);
