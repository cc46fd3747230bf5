import { placeIn } from '../../curves/elements';
import { tipsOf } from '../../curves/tips';
import { wholeMesh } from '../../geometry/copies';
import type { Form } from '../../geometry/form';
import { type Placement, withRiders } from '../../geometry/joinMeshes';
import { unwritten } from '../../geometry/meshAttributes';
import { pointValues } from '../../geometry/pathAttributes';
import { type Mesh, vertexCount } from '../../geometry/mesh';
import { pathCount, PATHS } from '../../geometry/paths';
import { add, cross, scale } from '../../geometry/vec';
import type { StepContext } from '../declare';
import { byValue } from './items';
import type { TipsParams } from './tips';

const RIDERS = ['growth', 'second', 'third'] as const;

/** A form with what rides at the growing ends of its paths, joined to its skin. */
export async function runTips(form: Form, p: TipsParams, context: StepContext): Promise<Form> {
  const others: Form[] = [];
  for (const name of RIDERS) {
    // Those behind one that is not chosen do not show.
    if (p[name] === null) break;
    others.push(await context.other(name));
  }
  // While a rider itself is too young to have a skin, nothing rides for it.
  const riders = others.map((other) => withOwnColours(wholeMesh(other)));
  if (riders.every((rider) => rider === null)) return form;
  const found = tipsOf(form.paths!);
  const byAttribute = riders.length > 1 && p.mix === 'attribute';
  const values = byAttribute ? pointValues(form.paths!, p.mixBy) : null;
  if (byAttribute && !values) throw unwritten(p.mixBy);
  const which = found.map(({ point, id }) =>
    values ? byValue(values[point], p.mixFrom, riders.length) : id % riders.length,
  );
  context.claim(
    'points',
    which.reduce((sum, k) => sum + (riders[k]?.positions.length ?? 0) / 3, 0),
    'the number of paths, or of faces of what rides',
  );
  const [size, turn] = [context.varied('size'), context.varied('turn')];
  const element = placeIn(PATHS, form.paths!, 'point', pathCount(form.paths!));
  element.u = 1;
  const placements = found.map((tip): Placement => {
    element.id = tip.id;
    element.index = tip.path;
    element.at = tip.point;
    const angle = (turn(element) * Math.PI) / 180;
    const side = cross(tip.tangent, tip.normal);
    return {
      origin: add(tip.position, scale(tip.tangent, p.ahead)),
      x: add(scale(tip.normal, Math.cos(angle)), scale(side, Math.sin(angle))),
      y: tip.tangent,
      size: size(element) * (p.thickness ? tip.size : 1),
    };
  });
  let { mesh } = form;
  for (const [k, rider] of riders.entries()) {
    const own = placements.filter((_, i) => which[i] === k);
    if (rider) mesh = await withRiders(mesh, rider, own, () => context.yieldNow());
  }
  return { ...form, mesh, surface: form.surface ?? others[0].surface };
}

/** A rider that has been finished keeps its colours, whatever the growth that it rides on is finished with. */
const withOwnColours = (rider: Mesh | null): Mesh | null =>
  rider?.colors ? { ...rider, finished: new Float32Array(vertexCount(rider)).fill(1) } : rider;
