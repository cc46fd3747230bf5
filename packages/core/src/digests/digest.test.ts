import { newStep } from '../scene/make';
import { formOf, sceneOf } from '../testing';
import { arraysOf, emptyForm } from '../geometry/form';
import type { Mesh } from '../geometry/mesh';
import { digest, formHash } from './digest';

const skin = () => formOf(sceneOf([newStep('line', { points: 8 }), newStep('tube', { sides: 3 }), newStep('finish')]));

test('equal forms have equal hashes, whoever made them', async () => {
  expect(formHash(await skin())).toBe(formHash(await skin()));
});

test('a single bit in any array changes the hash', async () => {
  const hash = formHash(await skin());
  const { length } = arraysOf(await skin());
  for (let i = 0; i < length; i++) {
    const form = await skin();
    const array = arraysOf(form)[i];
    if (array.byteLength === 0) continue;
    new Uint8Array(array.buffer, array.byteOffset, array.byteLength)[0] ^= 1;
    expect(formHash(form)).not.toBe(hash);
  }
});

test('what kind of geometry there is counts too', async () => {
  const form = await skin();
  expect(formHash({ ...form, mesh: null })).not.toBe(formHash(form));
  expect(formHash(emptyForm())).toMatch(/^[0-9a-f]{32}$/);
});

test('what an array is called counts, and how the surface takes the light', async () => {
  const form = await skin();
  const { tip, u } = form.mesh!;
  const ages = new Float32Array(u!.length);
  const hash = (mesh: Partial<Mesh>): string => formHash({ ...form, mesh: { ...form.mesh!, ...mesh } });
  expect(hash({ tip: ages, age: null })).not.toBe(hash({ tip: null, age: ages }));
  expect(hash({ u: ages, tip: null })).not.toBe(hash({ u: null, tip: ages }));
  expect(hash({ u, tip })).toBe(formHash(form));
  expect(formHash({ ...form, surface: { ...form.surface!, roughness: 0.1234 } })).not.toBe(formHash(form));
});

test('digests of many similar texts are all different', () => {
  const seen = new Set(Array.from({ length: 20_000 }, (_, i) => digest(`{"to":${i / 1000}}`)));
  expect(seen.size).toBe(20_000);
});
