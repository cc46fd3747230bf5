import { mapped } from '../../geometry/filled';
import { digest, meshHash } from '../../digests/digest';
import { arcLengths, totalLength } from '../../curves/arclength';
import { Histories } from '../../growing/simulationHistory';
import { type Ruffled, type Ruffling, ruffling } from '../../growing/ruffle';
import { Within } from '../../growing/within';
import { oneNumber } from '../../geometry/attributes';
import type { Mesh } from '../../geometry/mesh';
import { nearestPlace } from '../../geometry/search/nearest';
import { type Paths, pathsFrom } from '../../geometry/paths';
import { add, at, distance, type Vec3 } from '../../geometry/vec';
import { Problem } from '../../problem';
import type { StepContext } from '../declare';
import { lies } from './planeParam';
import { pathsIn, skinIn } from './others';
import type { RuffleParams } from './ruffle';

const histories = new Histories<Ruffled>();

/** Lines as far as they have grown; between two steps they are between the two. */
export async function runRuffle(p: RuffleParams, context: StepContext): Promise<Paths> {
  const lines = await linesOf(p, context);
  const begun = lines.reduce((sum, { positions }) => sum + lengthOf(positions), 0);
  context.claim('points', (2.2 * p.factor * begun) / p.piece, 'Final length, or raise Segment length');
  const steps = Math.min(400, Math.max(40, Math.ceil(12 * (p.factor - 1))));
  const skin = p.where === 'skin' ? await skinIn(context, 'skin', p.skin) : null;
  const form = p.within === 'form' ? await skinIn(context, 'form', p.form) : null;
  const { grown: _, ...how } = p;
  const key = digest(JSON.stringify([how, context.seed, lines, skin && meshHash(skin), form && meshHash(form)]));
  const yieldNow = (): Promise<void> => context.yieldNow();
  const history = await histories.of(key, async () =>
    ruffling({
      lines,
      factor: p.factor,
      steps,
      spacing: p.piece,
      apart: p.apart,
      stiffness: p.stiffness,
      uneven: p.uneven,
      seed: context.seed,
      held: p.held,
      keep: keeper(p, skin, form && (await Within.of(form, yieldNow))),
    }),
  );
  const place = p.grown * steps;
  const whole = Math.floor(place);
  const t = place - whole;
  const state = await history.at(whole, yieldNow);
  return pathsOf(t > 1e-9 ? await history.at(whole + 1, yieldNow) : state, t > 1e-9 ? t : 1, lines, steps);
}

function pathsOf(state: Ruffled, t: number, lines: Ruffling['lines'], steps: number): Paths {
  const { before, positions, born, offsets } = state;
  const mixed = positions.map((to, i) => before[i] + t * (to - before[i]));
  const paths = pathsFrom(
    lines.map(({ closed }, l) => ({ closed, positions: mixed.subarray(3 * offsets[l], 3 * offsets[l + 1]) })),
  );
  const values = mapped(Float32Array, born, (step) => step / steps);
  return { ...paths, named: { born: oneNumber('point', values) } };
}

async function linesOf(p: RuffleParams, context: StepContext): Promise<Ruffling['lines']> {
  if (p.begin === 'line') {
    const ends = [-1, 1].map((side) => add(middleOf(p), lies(p.lies, (side * p.length) / 2, 0)));
    return [{ positions: ends, closed: false }];
  }
  if (p.begin === 'ring') {
    const corners = Math.max(12, Math.round((2 * Math.PI * p.radius) / p.piece));
    const positions = Array.from({ length: corners }, (_, k) => {
      const angle = (2 * Math.PI * k) / corners;
      return add(middleOf(p), lies(p.lies, p.radius * Math.cos(angle), p.radius * Math.sin(angle)));
    });
    return [{ positions, closed: true }];
  }
  const { positions, offsets, closed } = await pathsIn(context, 'growth', p.growth);
  const lines = Array.from(closed, (loop, l) => ({
    positions: Array.from({ length: offsets[l + 1] - offsets[l] }, (_, i) => at(positions, offsets[l] + i)),
    closed: loop === 1,
  })).filter((line) => line.positions.length > (line.closed ? 2 : 1) && lengthOf(line.positions) > p.piece);
  if (lines.length === 0)
    throw new Problem('Its paths are shorter than a piece.', 'Lower Segment length, or choose another growth.');
  return lines;
}

const lengthOf = (places: readonly Vec3[]): number =>
  totalLength(arcLengths(Float64Array.from(places.flat()), 0, places.length, false));

/** What it is round; the origin where it begins with the paths of a growth. */
const middleOf = (p: RuffleParams): Vec3 => (p.begin === 'growth' ? [0, 0, 0] : [p.atX, p.atY, p.atZ]);

/** Keeps points where they may be. */
function keeper(p: RuffleParams, skin: Mesh | null, form: Within | null): Ruffling['keep'] {
  const middle = middleOf(p);
  const flat = p.lies === 'ground' ? 1 : 2;
  return (positions, i) => {
    if (p.where === 'plane') positions[3 * i + flat] = middle[flat];
    if (p.within === 'round') {
      const away = distance(at(positions, i), middle);
      if (away > p.most)
        for (let c = 0; c < 3; c++)
          positions[3 * i + c] = middle[c] + ((positions[3 * i + c] - middle[c]) * p.most) / away;
    }
    form?.keep(positions, i, 0);
    if (!skin) return;
    const place: Vec3 = [positions[3 * i], positions[3 * i + 1], positions[3 * i + 2]];
    positions.set(nearestPlace(skin, place)?.position ?? place, 3 * i);
  };
}
