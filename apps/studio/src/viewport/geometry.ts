import { BufferAttribute, BufferGeometry } from 'three';
import type { Shown } from '@/worker/protocol';

/** A skin as three.js holds it. */
export function meshGeometry(mesh: NonNullable<Shown['mesh']>): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
  if (mesh.colors) geometry.setAttribute('color', new BufferAttribute(mesh.colors, 3));
  if (mesh.glow) geometry.setAttribute('glow', new BufferAttribute(mesh.glow, 1));
  geometry.setIndex(new BufferAttribute(mesh.indices, 1));
  return geometry;
}
