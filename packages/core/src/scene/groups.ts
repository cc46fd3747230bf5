import type { Growth, GrowthGroup, Scene } from './schema';

type Groups = Pick<Scene, 'groups'>;

/** The group that a growth is in; undefined where it is in none, or in one that is gone. */
export const groupOf = (scene: Groups, growth: Pick<Growth, 'group'>): GrowthGroup | undefined =>
  growth.group === null ? undefined : scene.groups.find(({ id }) => id === growth.group);

/** Frames by which a growth runs late, its group's included. */
export const lateOf = (scene: Groups, growth: Pick<Growth, 'group' | 'shift'>): number =>
  growth.shift + (groupOf(scene, growth)?.shift ?? 0);

/** Whether a growth is shown: neither it nor its group is hidden. */
export const isShown = (scene: Groups, growth: Pick<Growth, 'group' | 'visible'>): boolean =>
  growth.visible && (groupOf(scene, growth)?.visible ?? true);

const known = new WeakMap<Scene, Scene>();
const alone = new WeakMap<Growth, Growth>();

/**
 * The same scene with what its groups do written into the growths. Growths that come out the same are the same objects
 * again, so that what is known of them holds.
 */
export function withoutGroups(scene: Scene): Scene {
  if (scene.groups.length === 0) return scene;
  let plain = known.get(scene);
  if (!plain)
    known.set(scene, (plain = { ...scene, groups: [], growths: scene.growths.map((growth) => single(scene, growth)) }));
  return plain;
}

function single(scene: Scene, growth: Growth): Growth {
  const [shift, visible] = [lateOf(scene, growth), isShown(scene, growth)];
  if (shift === growth.shift && visible === growth.visible) return growth;
  const before = alone.get(growth);
  if (before && before.shift === shift && before.visible === visible) return before;
  const made = { ...growth, shift, visible };
  alone.set(growth, made);
  return made;
}
