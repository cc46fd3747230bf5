import { BufferAttribute, BufferGeometry, Sphere, Vector3 } from 'three';
import type { Ball } from '@/worker/ball';
import type { Shown } from '@/worker/protocol';

/** What is made into a geometry; where no ball round it is known, three.js finds one when it is asked. */
type Meshed = Omit<NonNullable<Shown['mesh']>, 'ball' | 'flat'> & { ball?: Ball | null };

/** A skin as three.js holds it. */
export function meshGeometry(mesh: Meshed): BufferGeometry {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(mesh.positions, 3));
  geometry.setAttribute('normal', new BufferAttribute(mesh.normals, 3));
  if (mesh.colors) geometry.setAttribute('color', new BufferAttribute(mesh.colors, 3));
  if (mesh.glow) geometry.setAttribute('glow', new BufferAttribute(mesh.glow, 1));
  geometry.setIndex(new BufferAttribute(mesh.indices, 1));
  if (mesh.ball) geometry.boundingSphere = new Sphere(new Vector3(...mesh.ball.centre), mesh.ball.radius);
  return geometry;
}
