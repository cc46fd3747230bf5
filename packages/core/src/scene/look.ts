import type { Vec3 } from '../geometry/vec';
import { Problem } from '../problem';
import type { Resolved } from '../steps/declare';
import { declarationOf, defaultValues, GUIDE, type Guide, sceneOwners, type ScenePart } from './owners';
import { orbitAt } from './orbit';
import type { Owner, Scene, Step } from './schema';
import { type Clock, GrowthValues } from './values';

/** What a scene looks like at a frame, all its numbers worked out. */
export interface SceneLook {
  light: { turn: number; height: number; strength: number; color: string };
  backdrop: { above: string; below: string; ground: boolean; haze: number; motes: number };
  lens: { exposure: number; fov: number };
  camera: { position: Vec3; target: Vec3 };
  guides: Guide[];
  /** Why a value has none, where that is so; it is at its default then. */
  faults: Problem[];
}

/** The numbers of a scene itself at one frame. */
export class SceneValues {
  readonly #owners: Step[];
  readonly #values: GrowthValues;

  constructor(scene: Pick<Scene, ScenePart | 'guides'> & Clock, frame: number) {
    this.#owners = sceneOwners(scene);
    this.#values = new GrowthValues({ steps: this.#owners }, scene, frame);
  }

  /** The fields of one of the scene's parts. @throws Problem for a formula */
  part(id: ScenePart): Resolved {
    return this.#of(this.#owners.find((owner) => owner.id === id)!);
  }

  /** The guide of an id; null where there is none. @throws Problem for a formula */
  guide(id: string): Guide | null {
    const owner = this.#owners.find((one) => one.kind === GUIDE.kind && one.id === id);
    return owner ? guideFrom(owner, this.#of(owner)) : null;
  }

  #of(owner: Step): Resolved {
    return this.#values.of(declarationOf(owner.kind)!, owner);
  }
}

const triple = (p: Resolved, name: string): Vec3 => [
  p[`${name}X`] as number,
  p[`${name}Y`] as number,
  p[`${name}Z`] as number,
];

function guideFrom({ id, name }: Pick<Owner, 'id' | 'name'>, p: Resolved): Guide {
  const across = 2 * (p.radius as number);
  return {
    id,
    name,
    kind: p.which as Guide['kind'],
    position: triple(p, 'position'),
    rotation: triple(p, 'turn'),
    size: p.which === 'ball' ? [across, across, across] : triple(p, 'size'),
  };
}

function cameraAt({ camera: params }: Pick<Scene, 'camera'>, p: Resolved, frame: number): SceneLook['camera'] {
  const target = triple(p, 'target');
  const round = p.travel === 'orbit' ? orbitAt(params, frame, target) : null;
  return { position: round ?? triple(p, 'position'), target };
}

/** The look of a scene at a frame; where a formula fails, its part is as it is at first, and the fault is told. */
export function lookAt(scene: Pick<Scene, ScenePart | 'guides'> & Clock, frame: number): SceneLook {
  const values = new SceneValues(scene, frame);
  const faults: Problem[] = [];
  const tried = <T>(work: () => T, fallback: () => T): T => {
    try {
      return work();
    } catch (error) {
      if (!(error instanceof Problem)) throw error;
      faults.push(error);
      return fallback();
    }
  };
  const part = (id: ScenePart): Resolved =>
    tried(
      () => values.part(id),
      () => defaultValues(declarationOf(id)!),
    );
  const camera = part('camera');
  return {
    light: part('light') as unknown as SceneLook['light'],
    backdrop: part('backdrop') as unknown as SceneLook['backdrop'],
    lens: part('lens') as unknown as SceneLook['lens'],
    camera: cameraAt(scene, camera, frame),
    guides: scene.guides.map((guide) =>
      tried(
        () => values.guide(guide.id)!,
        () => guideFrom(guide, defaultValues(GUIDE)),
      ),
    ),
    faults,
  };
}
