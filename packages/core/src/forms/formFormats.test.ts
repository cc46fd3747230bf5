import { SHIPPED_FILES, type ShippedId } from '../scene/shippedFiles';
import { newStep } from '../scene/make';
import { sceneOf, testEvaluator } from '../testing';
import { assetBytes, withShipped } from '../../test/paths';
import { FORM_ACCEPT, FORM_NAMES } from './formFormats';
import { readPicture } from '../pictures/readPicture';
import { readTable } from '../tables/readTable';
import { readForm } from './readForm';

withShipped();

test('texts and file fields list all formats', () => {
  expect(FORM_NAMES).toBe('OBJ, PLY, STL or glTF (GLB)');
  expect(FORM_ACCEPT.split(',')).toEqual(
    expect.arrayContaining(['.obj', '.ply', '.stl', '.gltf', '.glb', 'model/gltf-binary', 'model/obj', 'model/stl']),
  );
});

test.each(Object.keys(SHIPPED_FILES) as ShippedId[])('the shipped file %s is there, and of its kind', async (id) => {
  const bytes = assetBytes(SHIPPED_FILES[id].file);
  if (SHIPPED_FILES[id].kind === 'form') expect((await readForm(bytes)).indices.length).toBeGreaterThan(1000);
  else if (SHIPPED_FILES[id].kind === 'table') expect(readTable(bytes).rows).toBeGreaterThan(20);
  else if (SHIPPED_FILES[id].kind === 'picture') expect(readPicture(bytes).width).toBeGreaterThan(300);
  // WOFF 1.0, section 4: the signature.
  else expect(String.fromCharCode(...bytes.subarray(0, 4))).toBe('wOFF');
});

test('a scene that asks for a file that this version does not ship says so', async () => {
  const scene = sceneOf([newStep('form', { file: 'shipped:toString' })]);
  const [{ notices }] = (await testEvaluator().evaluate(scene, 1)).growths;
  expect(notices.map(({ what }) => what)).toEqual(['No file “toString” comes with this version.']);
});
