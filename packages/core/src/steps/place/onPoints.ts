import { hash, random } from '../../fields/random';
import { columnNamed } from '../../geometry/attributes';
import { picked } from '../../geometry/carrier';
import { POINTS } from '../../geometry/form';
import { unwritten } from '../../geometry/meshAttributes';
import { profileTable, readTable } from '../../geometry/profile';
import { about, after, between, fromAxes, type Turn, turnAt } from '../../geometry/turns';
import { at, sub, unit } from '../../geometry/vec';
import { defineStep, type NumberParam, type ProfileParam, numberField } from '../declare';
import { percent } from '../format';
import { itemsOf, pointItemParams, sizeParam, varyParam } from './items';
import { turnPattern } from './turnPattern';

const degreesField = numberField({ unit: 'deg', min: -3600, max: 3600 });
const degrees = (label: string, help: string, value: number, slider: [number, number]): NumberParam =>
  degreesField(label, help, value, { slider });
const profile = (label: string, help: string, shape: readonly { at: number; value: number }[]): ProfileParam => ({
  type: 'profile',
  label,
  help,
  min: 0,
  max: 2,
  default: shape,
});

export const onPoints = defineStep({
  kind: 'on-points',
  family: 'place',
  label: 'On the points',
  icon: 'M6 15V11M6 11 4 8 6 5 8 8ZM14 15V11M14 11 12 8 14 5 16 8ZM3 17.5H17',
  help: 'A copy of another growth on every point, standing away from the surface that the points lie on.',
  takes: ['points'],
  gives: ['copies'],
  parts: {
    'By place': ['sizeAlong', 'leanAlong'],
    Variation: ['variants', 'vary', 'varyTurn', 'varyLean'],
  },
  params: {
    ...pointItemParams,
    size: sizeParam,
    sizeAlong: profile('Size by place', 'Factor on the size, from the centre to the rim.', [{ at: 0, value: 1 }]),
    lean: degrees('Lean', 'Tilts each copy outwards.', 0, [-120, 120]),
    leanAlong: profile('Lean by place', 'Factor on the lean, from the centre to the rim.', [{ at: 0, value: 1 }]),
    facing: {
      type: 'choice',
      label: 'Facing',
      help: 'Standing away from the surface, upright, or pointing at a guide.',
      options: [
        { value: 'surface', label: 'As the points stand' },
        { value: 'upright', label: 'Upright' },
        { value: 'guide', label: 'At a guide' },
      ],
      default: 'surface',
    },
    toward: {
      type: 'guide',
      label: 'Guide',
      help: 'What the upward axis of each copy points at.',
      default: null,
      shown: (p) => p.facing === 'guide',
    },
    turns: {
      type: 'text',
      label: 'Turns',
      help: 'Degrees about its own upward axis, one copy after another: 0, 90 in turn, or an angle more each time with “+30”.',
      default: '0',
      most: 200,
    },
    vary: varyParam,
    varyTurn: degrees('Vary turn', 'Turns each copy by up to so much, at random.', 0, [0, 180]),
    varyLean: degrees('Vary lean', 'Tilts each copy by up to so much more or less, at random.', 0, [0, 90]),
  },
  summary: (p) => (p.growth === null ? 'no item chosen' : `${percent(p.size)} size`),
  async run(form, p, context) {
    const items = await itemsOf(p, context);
    if (!items) return form;
    const { joinSeats, SeatList } = await import('../../geometry/seats');
    const points = form.points!;
    const known = p.mix === 'attribute' && items.shapes.length > 1 ? columnNamed(POINTS, points, p.mixBy) : null;
    if (p.mix === 'attribute' && items.shapes.length > 1 && (!known?.values || known.type.width !== 1))
      throw unwritten(p.mixBy);
    const turns = turnPattern(p.turns);
    const [sizes, leans] = [profileTable(p.sizeAlong, 257), profileTable(p.leanAlong, 257)];
    const [goal] = p.facing === 'guide' && p.toward !== null ? await context.places('toward') : [null];
    const seats = new SeatList(items.shapes.map(({ id }) => id));
    context.claim('copies', points.ids.length, 'the number of points');
    const { seed } = context;
    const kept: number[] = [];
    for (let k = 0; k < points.ids.length; k++) {
      if (k % 4096 === 0) await context.breathe();
      if (points.size[k] === 0) continue;
      kept.push(k);
      // Whatever differs from one to the next hangs on the same: then heads without end close.
      const order = points.dice[k];
      const number = hash(seed, order);
      const share = points.share[k];
      const position = at(points.positions, k);
      const stands: Turn = goal
        ? between([0, 1, 0], unit(sub(goal, position)))
        : p.facing === 'upright'
          ? fromAxes([1, 0, 0], [0, 1, 0])
          : turnAt(points.turns, k);
      const tilt = p.lean * readTable(leans, share) + p.varyLean * (2 * random(number, 3) - 1);
      const turn = turns.at(order) + (p.varyTurn * Math.PI * (2 * random(number, 2) - 1)) / 180;
      seats.add({
        growth: items.at(order, number, known?.values?.[k]),
        id: points.ids[k],
        dice: order,
        number: order,
        row: 0,
        position,
        turn: after(stands, after(about([1, 0, 0], (-tilt * Math.PI) / 180), about([0, 1, 0], turn))),
        size: p.size * points.size[k] * readTable(sizes, share) * (1 - p.vary * random(number, 1)),
        share,
        age: points.age ? points.age[k] : Infinity,
        life: points.life ? points.life[k] : null,
        variant: items.variant(number),
      });
    }
    // Copies know what their points do.
    const { named } = picked(POINTS, points, 'point', kept);
    const placed = {
      ...seats.done(),
      named: Object.fromEntries(
        Object.entries(named).map(([name, attribute]) => [name, { ...attribute, domain: 'copy' as const }]),
      ),
    };
    return { ...form, seats: joinSeats(form.seats, placed) };
  },
});
