import { formHash } from '../digests/digest';
import { newGrowth, newScene, newStep } from './make';
import type { Params, ParamValue, Scene } from './schema';
import { lookAt } from './look';
import { newGuide, ownerIn, ownersOf, SCENE_ID, withPlace } from './owners';
import { checkScene, readScene, writeScene } from './read';
import { faultOfScene, namedPlace } from './faults';
import { mendScene } from './repairScene';
import { boundsOf } from '../geometry/form';
import { formOf, sceneOf, testEvaluator } from '../testing';

const rising = (from: number, to: number): ParamValue => ({
  keys: [
    { frame: 1, value: from, ease: 'linear' },
    { frame: 11, value: to, ease: 'linear' },
  ],
  before: 'hold',
  after: 'hold',
});

describe("a scene's own numbers", () => {
  test('have keys and formulas, which may look at each other', () => {
    const scene = newScene('Reef');
    scene.light.turn = rising(0, 100);
    scene.light.height = { formula: 'turn / 2' };
    scene.lens.exposure = { formula: 'light.strength * 2' };
    scene.light.strength = 0.5;
    scene.camera.positionY = rising(1, 2);
    const look = lookAt(scene, 6);
    expect(look.light).toMatchObject({ turn: 50, height: 25, strength: 0.5, color: '#fff2dc' });
    // Shares are in percent where formulas see them: 50 % twice is 100 %.
    expect(look.lens.exposure).toBeCloseTo(1, 12);
    expect(look.camera.position[1]).toBe(1.5);
    expect(look.faults).toEqual([]);
  });

  test('a formula that fails leaves its part as it is at first, and says why', () => {
    const scene = newScene('Reef');
    scene.light.turn = { formula: 'height' };
    scene.light.height = { formula: 'turn' };
    const { light, faults } = lookAt(scene, 1);
    expect(light.turn).toBe(40);
    expect(faults[0].message).toMatch(/Light Turn → Light Height → Light Turn/);
  });

  test('an owner is found by its holder and id, and written into where it stands', () => {
    const scene = sceneOf([newStep('line')]);
    scene.guides = [newGuide('lamp', 'Lamp', 'ball')];
    expect(ownersOf(scene, SCENE_ID).map(({ id }) => id)).toEqual(['light', 'backdrop', 'lens', 'camera', 'lamp']);
    expect(ownersOf(scene, 'growth').map(({ kind }) => kind)).toEqual(['line', 'place']);
    ownerIn(scene, SCENE_ID, 'lamp')!.params.radius = 2;
    ownerIn(scene, 'growth', 'place')!.params.moveX = 3;
    expect(lookAt(scene, 1).guides[0].size).toEqual([4, 4, 4]);
    expect(scene.growths[0].place).toEqual({ moveX: 3 });
    expect(ownerIn(scene, SCENE_ID, 'sun')).toBeUndefined();
  });

  test.each<[string, (scene: Scene) => void, RegExp, RegExp]>([
    ['a light too strong', (s) => (s.light.strength = 11), /1000 % or less/, /Light, Strength/],
    ['a number that no light has', (s) => (s.light.warmth = 1), /no parameter "warmth"/, /^Light$/],
    ['a guide of no kind', (s) => (s.guides[0].params.which = 'cone'), /must be one of/, /guide “Lamp”, Kind/],
    ['a growth too small', (s) => (s.growths[0].place.scale = -1), /0 % or more/, /growth “Frond”, place, Scale/],
    ['a place among the steps', (s) => (s.growths[0].steps[0].kind = 'place'), /no step "place"/, /growth “Frond”/],
  ])('%s is refused by its name, and mended', (_, damage, reason, where) => {
    const scene = sceneOf([newStep('line')]);
    scene.guides = [newGuide('lamp', 'Lamp', 'point')];
    damage(scene);
    const fault = faultOfScene(scene)!;
    expect(fault.reason).toMatch(reason);
    expect(namedPlace(scene, fault.path)).toMatch(where);
    expect(faultOfScene(mendScene(scene)!.scene)).toBeNull();
  });

  test('scenes of version 4 keep their look, their guides and their shot', () => {
    const now = newScene('Reef');
    const { lens: _, ...rest } = now;
    const old = {
      ...rest,
      version: 4,
      finish: { exposure: 1.5, palette: ['#c9e86a'] },
      camera: { position: [1, 2, 3], target: [4, 5, 6], fov: 50 },
      light: { turn: 10, height: 20, strength: 2, color: '#ffffff' },
      guides: [
        { id: 'a', name: 'Lamp', kind: 'ball', position: [1, 2, 3], rotation: [0, 0, 0], size: [3, 3, 3] },
        { id: 'b', name: 'Crate', kind: 'box', position: [0, 0, 0], rotation: [10, 20, 30], size: [1, 2, 3] },
      ],
      growths: [{ ...newGrowth('Line', 0, [newStep('line')]), place: undefined }],
    };
    const scene = checkScene(JSON.parse(JSON.stringify(old)));
    const look = lookAt(scene, 1);
    expect(look.camera).toEqual({ position: [1, 2, 3], target: [4, 5, 6] });
    expect(look.lens).toEqual({ exposure: 1.5, fov: 50 });
    expect(look.light).toEqual(old.light);
    expect(look.guides[0]).toEqual(old.guides[0]);
    expect(look.guides[1]).toEqual(old.guides[1]);
    expect(scene.growths[0].place).toEqual({});
    expect(readScene(writeScene(scene))).toEqual(scene);
  });
});

describe('the place of a growth', () => {
  const steps = () => [newStep('line', { toX: 1, toY: 0, points: 5 }), newStep('tube', { sides: 5 })];
  const moved = async (place: Params, frame = 1) => {
    const scene = sceneOf(steps());
    scene.growths[0].place = place;
    return formOf(scene, frame);
  };

  test('does what the step Move and turn does, on paths and skin', async () => {
    const params = { moveX: 1, moveY: 2, moveZ: 3, turnX: 20, turnY: 40, turnZ: 60, scale: 1.5 };
    const [placed, stepped] = [await moved(params), await formOf(sceneOf([...steps(), newStep('transform', params)]))];
    for (const part of ['paths', 'mesh'] as const)
      placed[part]!.positions.forEach((value, i) => expect(value).toBeCloseTo(stepped[part]!.positions[i], 4));
    placed.mesh!.normals.forEach((value, i) => expect(value).toBeCloseTo(stepped.mesh!.normals[i], 2));
  });

  test('has keys on the clock of its growth, and stands still without any', async () => {
    const scene = sceneOf(steps());
    scene.growths[0].shift = 5;
    scene.growths[0].place = { moveY: rising(0, 10) };
    expect(boundsOf(await formOf(scene, 11))!.min[1]).toBeCloseTo(boundsOf(await moved({}))!.min[1] + 5, 4);
    const still = sceneOf(steps()).growths[0];
    expect(withPlace(still)).toBe(still);
  });

  test('takes copies along, turned and sized, wherever they come from', async () => {
    const scene = sceneOf([
      newStep('line', { toX: 4, toY: 0 }),
      newStep('along', { growth: 'item', by: 'count', count: 4 }),
    ]);
    scene.growths.push({ ...newGrowth('Item', 1, [newStep('solid')]), id: 'item', visible: false });
    const before = (await formOf(scene)).copies!;
    scene.growths[0].place = { moveY: 2, turnZ: 90, scale: 0.5 };
    const after = (await formOf(scene)).copies!;
    for (let k = 0; k < 4; k++) {
      // A quarter turn about Z takes X to Y.
      expect(after.positions[3 * k]).toBeCloseTo(-0.5 * before.positions[3 * k + 1], 5);
      expect(after.positions[3 * k + 1]).toBeCloseTo(2 + 0.5 * before.positions[3 * k], 5);
      expect(after.sizes[3 * k]).toBeCloseTo(0.5 * before.sizes[3 * k], 6);
    }
  });

  test('a guide that moves weighs anew at each frame, reached forwards or by a jump', async () => {
    const scene = sceneOf([
      newStep('line', { toX: 4, toY: 0 }),
      newStep('along', { growth: 'item', by: 'count', count: 8 }),
      newStep('falloff', { shape: 'guide', guide: 'guide:lamp', drives: 'size', factor: 3 }),
    ]);
    scene.growths.push({ ...newGrowth('Item', 1, [newStep('solid')]), id: 'item', visible: false });
    scene.guides = [newGuide('lamp', 'Lamp', 'ball', { positionX: rising(0, 4), positionY: 0, radius: 1 })];
    const lived = testEvaluator();
    const hashes: string[] = [];
    for (const frame of [1, 4, 8, 11]) hashes.push(formHash((await lived.evaluate(scene, frame)).growths[0].form!));
    expect(new Set(hashes).size).toBe(4);
    expect(formHash(await formOf(scene, 8))).toBe(hashes[2]);
  });

  test('an item whose own guide moves is shown at the moment that it lags by', async () => {
    const scene = sceneOf([
      newStep('line', { toX: 4, toY: 0 }),
      newStep('along', { growth: 'item', by: 'count', count: 3 }),
      newStep('offset', { by: 'number', time: 2 / 24 }),
    ]);
    scene.guides = [newGuide('lamp', 'Lamp', 'ball', { positionX: rising(0, 1), positionY: 0, radius: 0.3 })];
    const item = [
      newStep('line', { toX: 1, toY: 0, points: 3 }),
      newStep('along', { growth: 'bead', by: 'count', count: 5 }),
      newStep('falloff', { shape: 'guide', guide: 'guide:lamp', drives: 'size', factor: 3 }),
    ];
    scene.growths.push({ ...newGrowth('Item', 1, item), id: 'item', visible: false });
    scene.growths.push({ ...newGrowth('Bead', 2, [newStep('solid')]), id: 'bead', visible: false });
    const { copies } = await formOf(scene, 9);
    const sizesOf = (row: number) => [...copies!.sizes].filter((_, i) => i % 3 === 0).slice(5 * row, 5 * row + 5);
    // The second shows what the first showed two frames before.
    const earlier = (await formOf(scene, 7)).copies!;
    const first = [...earlier.sizes].filter((_, i) => i % 3 === 0).slice(0, 5);
    sizesOf(1).forEach((size, i) => expect(size).toBeCloseTo(first[i], 6));
    expect(sizesOf(0)).not.toEqual(first);
  });
});
