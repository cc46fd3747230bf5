import { movedPaths } from '../../curves/pathFrames';
import { type Form } from '../../geometry/form';
import { type Vec3 } from '../../geometry/vec';
import { type StepContext } from '../declare';

const CHUNK = 8192;

/** Moves every point of a form's paths by a function of its place and number; lets messages in now and then. */
export async function eachPoint(
  form: Form,
  context: StepContext,
  move: (place: Vec3, i: number) => Vec3,
): Promise<Form> {
  const paths = form.paths!;
  const positions = new Float32Array(paths.positions.length);
  for (let i = 0; i < positions.length / 3; i++) {
    if (i % CHUNK === 0) await context.breathe();
    positions.set(move([paths.positions[3 * i], paths.positions[3 * i + 1], paths.positions[3 * i + 2]], i), 3 * i);
  }
  return { ...form, paths: movedPaths(paths, positions) };
}
