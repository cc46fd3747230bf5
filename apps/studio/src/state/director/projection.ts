import { type PerspectiveCamera, Plane, Raycaster, Vector2, Vector3 } from 'three';
import { create } from 'zustand';
import type { TrailTarget, Vec3 } from '@uvrex/core';

/** What a line of sight meets. */
export interface Hit {
  place: Vec3;
  /** The growth that it is of. */
  growth: string;
  /** The point as it can be followed; null where nothing of it stays the same from frame to frame. */
  target: TrailTarget | null;
}

interface ProjectionState {
  camera: PerspectiveCamera | null;
  width: number;
  height: number;
  /** Counts the pictures drawn: what is laid over them follows. */
  drawn: number;
  /** Radius of all that is shown, metres. */
  radius: number;
  /** How much of the copies is in the picture; the rest is still being added to it. */
  complete: number;
  /** Finds the skin under a line of sight; null where there is none. */
  hit: (ray: Raycaster) => Hit | null;
  /** Draws a growth whose skin's colours have been changed in place. */
  recolour: (growth: string) => void;
}

const noProjection = (): ProjectionState => ({
  camera: null,
  width: 1,
  height: 1,
  drawn: 0,
  radius: 1,
  complete: 1,
  hit: () => null,
  recolour: () => undefined,
});

/** How the viewport's picture maps space to its pixels. */
export const useProjection = create(noProjection);

/** Forgets a stage that is disposed of: its picture tests hold everything it drew. */
export const resetProjection = (): void => useProjection.setState(noProjection());

/** Where a point in space is in the viewport, in pixels from its top left corner; null behind the camera. */
export function toScreen(point: Vec3, { camera, width, height }: ProjectionState): { x: number; y: number } | null {
  if (!camera) return null;
  const v = new Vector3(...point).project(camera);
  return v.z > 1 ? null : { x: ((v.x + 1) / 2) * width, y: ((1 - v.y) / 2) * height };
}

/** The point of a plane that lies under a viewport pixel; null where the line of sight misses it. */
export function ontoPlane(x: number, y: number, plane: Plane, { camera, width, height }: ProjectionState): Vec3 | null {
  if (!camera) return null;
  const ray = new Raycaster();
  ray.setFromCamera(new Vector2((2 * x) / width - 1, 1 - (2 * y) / height), camera);
  const hit = ray.ray.intersectPlane(plane, new Vector3());
  return hit ? [hit.x, hit.y, hit.z] : null;
}

/** The nearest skin under a viewport pixel; null where there is none. */
export function skinUnder(x: number, y: number, { camera, width, height, hit }: ProjectionState): Hit | null {
  if (!camera) return null;
  const ray = new Raycaster();
  ray.setFromCamera(new Vector2((2 * x) / width - 1, 1 - (2 * y) / height), camera);
  return hit(ray);
}

export const groundPlane = (): Plane => new Plane(new Vector3(0, 1, 0), 0);

/** The plane through a point that faces the camera. */
export function facingPlane(through: Vec3, camera: PerspectiveCamera): Plane {
  return new Plane().setFromNormalAndCoplanarPoint(
    camera.getWorldDirection(new Vector3()).negate(),
    new Vector3(...through),
  );
}
