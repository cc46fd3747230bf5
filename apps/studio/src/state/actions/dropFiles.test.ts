import { purposeOf } from './dropFiles';

test('files begin growths by the endings of their names, whatever their case', () => {
  const starts = ['Rock.OBJ', 'hull.ply', 'hull.stl', 'a.b.glb', 'a.gltf', 'bell.svg', 'tides.CSV'].map(
    (name) => purposeOf(name)?.step,
  );
  expect(starts).toEqual(['form', 'form', 'form', 'form', 'form', 'vector', 'table-lines']);
  expect(['scene.json', 'obj', 'tone.wav'].map(purposeOf)).toEqual([undefined, undefined, undefined]);
});
