import { MeshBasicMaterial } from 'three';
import { Materials } from './materials';

/** A material that tells when it goes. */
function told(gone: string[], name: string): MeshBasicMaterial {
  const material = new MeshBasicMaterial();
  material.addEventListener('dispose', () => void gone.push(name));
  return material;
}

test('a name has one material, made when it is first asked for', () => {
  const materials = new Materials();
  let made = 0;
  const make = (): MeshBasicMaterial => {
    made++;
    return new MeshBasicMaterial();
  };
  const first = materials.of(['skin', { roughness: 0.4 }], make);
  expect(materials.of(['skin', { roughness: 0.4 }], make)).toBe(first);
  expect(materials.of(['skin', { roughness: 0.5 }], make)).not.toBe(first);
  expect(made).toBe(2);
});

test('of far too many the longest unused goes; what is still asked for stays', () => {
  const gone: string[] = [];
  const materials = new Materials();
  const ask = (name: string): MeshBasicMaterial => materials.of([name], () => told(gone, name));
  const kept = ask('kept');
  for (let k = 0; k < 3000; k++) {
    ask(String(k));
    if (k % 500 === 0) expect(ask('kept')).toBe(kept);
  }
  expect(gone).toHaveLength(1001);
  expect(gone[0]).toBe('0');
  expect(gone).not.toContain('kept');
  materials.dispose();
  expect(gone).toContain('kept');
  expect(gone).toHaveLength(3001);
});
