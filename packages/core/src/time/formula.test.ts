import { noise3 } from '../fields/noise';
import { newStep } from '../scene/make';
import { paramFault } from '../scene/params';
import { formulaNames, GrowthValues, stepNames } from '../scene/values';
import { stepOf } from '../steps/index';
import { sceneOf, testEvaluator } from '../testing';
import { formulaFault, formulaValue } from './formula';

const plain = (formula: string): number => formulaValue(formula, () => undefined);

describe('formula', () => {
  // Values of trigonometry at the angles of the half square and half triangle.
  test('angles are in degrees, both ways', () => {
    expect(plain('sin(30)')).toBeCloseTo(0.5, 12);
    expect(plain('cos(60)')).toBeCloseTo(0.5, 12);
    expect(plain('tan(45)')).toBeCloseTo(1, 12);
    expect(plain('asin(1)')).toBeCloseTo(90, 12);
    expect(plain('atan2(1, -1)')).toBeCloseTo(135, 12);
  });

  test('the operators bind as in arithmetic', () => {
    expect(plain('2 + 3 * 4 ^ 2')).toBe(50);
    expect(plain('-2 ^ 2')).toBe(-4);
    expect(plain('7 % 4')).toBe(3);
    expect(plain('2 > 1 ? 10 : 20')).toBe(10);
    expect(plain('clamp(12, 0, 5) + mix(10, 20, 0.25) + ease(0, 10, 5)')).toBe(5 + 12.5 + 0.5);
  });

  // Scenes hang on its values: they are those of the noise that Noise has, along a line, with no seed.
  test('wander goes to and fro between −1 and 1, as one octave of noise along a line', () => {
    const out = new Float64Array(1);
    for (const x of [0, 0.3, 1.7, -4.2, 1000.5]) {
      noise3(x, 0.5, 0.5, 0, { detail: 1, roughness: 0.5, seed: 0, period: 0 }, out);
      expect(plain(`wander(${x})`)).toBe(out[0]);
    }
    const many = Array.from({ length: 400 }, (_, k) => plain(`wander(${k} / 20)`));
    expect(Math.max(...many)).toBeGreaterThan(0.3);
    expect(Math.min(...many)).toBeLessThan(-0.3);
    expect(Math.max(...many.map((value, k) => Math.abs(value - (many[k - 1] ?? value))))).toBeLessThan(0.25);
  });

  test.each([
    ['nothing after an operator', '2 +'],
    ['an open bracket', 'sin(30'],
    ['an assignment', 'a = 3'],
    ['a function definition', 'f(x) = x'],
  ])('%s is refused with a reason', (_, formula) => {
    expect(formulaFault(formula)).toMatch(/cannot be read/);
  });

  test('nothing outside the formula can be reached', () => {
    for (const formula of ['constructor', 'frame.constructor', '__proto__', 'toString()', 'this', 'globalThis.x'])
      expect(() => plain(formula)).toThrow();
  });

  test('no value, and no finite value, say so', () => {
    expect(() => plain('speed * 2')).toThrow(/“speed”/);
    expect(() => plain('1 / 0')).toThrow(/no finite/);
    expect(() => plain('sqrt(-1)')).toThrow(/no finite/);
  });
});

describe('formulas in a growth', () => {
  const values = (steps: ReturnType<typeof newStep>[], frame = 13) =>
    new GrowthValues({ steps }, { fps: 24, range: [1, 144] }, frame);

  test('see the frame, the clock and other values as their fields show them', () => {
    const grow = newStep('grow', { to: 0.8, from: { formula: 'to / 4' } });
    const sweep = newStep('sweep', { roll: { formula: 'frame * 2 + seconds * 10 + grow.to' } });
    const read = values([grow, sweep]);
    // A share is shown in percent: a quarter of 80 % is 20 %.
    expect(read.one(stepOf('grow')!, grow, 'from')).toBeCloseTo(0.2, 12);
    expect(read.one(stepOf('sweep')!, sweep, 'roll')).toBeCloseTo(26 + 5 + 80, 12);
  });

  test('are kept within what the parameter allows, whole where it is whole', () => {
    const noise = newStep('noise', { detail: { formula: '2.6' }, hold: { formula: '500' } });
    const read = values([noise]);
    expect(read.one(stepOf('noise')!, noise, 'detail')).toBe(3);
    expect(read.one(stepOf('noise')!, noise, 'hold')).toBe(1);
  });

  test('steps of one kind are told apart by number, and a step of its own name goes by it', () => {
    const steps = [newStep('noise'), newStep('noise'), { ...newStep('noise'), name: 'Slow swell' }];
    expect([...stepNames({ steps }).keys()]).toEqual(['noise', 'noise2', 'slowSwell']);
    expect(formulaNames({ steps } as never, steps[0])).toEqual(
      expect.arrayContaining(['frame', 'amount', 'noise2.amount', 'slowSwell.amount']),
    );
  });

  test('a circle is named, on the step where it is', async () => {
    const scene = sceneOf([
      newStep('line'),
      newStep('noise', { amount: { formula: 'wave.amount' } }),
      newStep('wave', { amount: { formula: 'noise.amount / 2' } }),
    ]);
    const { growths } = await testEvaluator().evaluate(scene, 1);
    expect(growths[0].form).toBeNull();
    expect(growths[0].notices[0].what).toBe(
      'Formulas refer to each other in a circle: Noise Amount → Wave Amount → Noise Amount.',
    );
    expect(growths[0].notices[0].place.step).toBe('step1');
  });

  test('two steps of one kind may refer to each other where no field comes back to itself', () => {
    const steps = [
      newStep('noise', { amount: { formula: 'noise2.amount / 2' } }),
      newStep('noise', { amount: { formula: '0.5' }, evolve: { formula: 'noise.amount' } }),
    ];
    const read = values(steps);
    expect(read.one(stepOf('noise')!, steps[0], 'amount')).toBe(0.25);
    expect(read.one(stepOf('noise')!, steps[1], 'evolve')).toBe(0.25);
    steps[1].params.amount = { formula: 'noise.amount' };
    expect(() => values(steps).one(stepOf('noise')!, steps[0], 'amount')).toThrow(
      'Noise (noise) Amount → Noise (noise2) Amount → Noise (noise) Amount',
    );
  });

  test('each value is worked out once: chains of steps that name each other many times end', () => {
    // Without that, forty steps that name eight numbers of the next one come to 8^40 evaluations.
    const names = ['middleX', 'middleY', 'middleZ', 'radius'];
    const steps = Array.from({ length: 40 }, (_, i) =>
      newStep(
        'arc',
        Object.fromEntries(
          names.map((name) => [
            name,
            i === 39 ? 1 : { formula: `(${names.map((other) => `arc${i + 2}.${other}`).join(' + ')}) / 4` },
          ]),
        ),
      ),
    );
    expect(values(steps).one(stepOf('arc')!, steps[0], 'radius')).toBe(1);
  });

  test('move with the frame, and give the same result as the track they describe', async () => {
    const of = (to: never) => sceneOf([newStep('line'), newStep('grow', { to })]);
    const track = of({
      keys: [
        { frame: 1, value: 0, ease: 'linear' },
        { frame: 101, value: 1, ease: 'linear' },
      ],
      before: 'hold',
      after: 'hold',
    } as never);
    const formula = of({ formula: 'frame - 1' } as never);
    for (const frame of [1, 26, 51, 101]) {
      const [a, b] = await Promise.all([track, formula].map((scene) => testEvaluator().evaluate(scene, frame)));
      expect(b.growths[0].share).toBeCloseTo(a.growths[0].share!, 6);
    }
  });

  test('staggered growth reads them at earlier frames, and looks anew when what they use changes', async () => {
    const scene = sceneOf([
      newStep('line'),
      newStep('strands', { as: 'row', count: 2, vary: 0, turn: 0 }),
      newStep('noise', { amount: 0, evolve: 0, size: 1 }),
      newStep('grow', { to: { formula: '(frame - 1) * noise.size' }, stagger: 10 }),
    ]);
    const evaluator = testEvaluator();
    const lengths = async () => {
      const { growths } = await evaluator.evaluate({ ...scene }, 31);
      return growths[0].share;
    };
    expect(await lengths()).toBeCloseTo((0.3 + 0.2) / 2, 4);
    scene.growths[0].steps[2].params.size = 2;
    expect(await lengths()).toBeCloseTo((0.6 + 0.4) / 2, 4);
  });

  test('what is no formula is refused beside its parameter', () => {
    const spec = stepOf('noise')!.params.amount;
    expect(paramFault(spec, { formula: '2 *' })).toMatch(/the formula cannot be read/);
    expect(paramFault(spec, { formula: 'frame / 10' })).toBeNull();
    expect(paramFault(stepOf('noise')!.params.loop, { formula: '1' })).not.toBeNull();
  });
});
