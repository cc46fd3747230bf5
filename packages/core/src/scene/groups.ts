import { groupMember } from '../steps/start/groupMember';
import type { Growth, GrowthGroup, Scene, Step } from './schema';

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
  if (!plain) {
    const growths = scene.growths.map((growth) => single(scene, growth));
    const named = namedIn(scene);
    const whole = scene.groups.filter(({ id }) => named.has(id)).map((group) => groupGrowth(scene, group));
    known.set(scene, (plain = { ...scene, groups: [], growths: [...growths, ...whole] }));
  }
  return plain;
}

/** Texts among the parameters of steps: the ids of what they refer to are among them. */
function namedIn({ growths }: Scene): ReadonlySet<unknown> {
  const named = new Set<unknown>();
  for (const { steps } of growths)
    for (const { params } of steps)
      for (const value of Object.values(params)) if (typeof value === 'string') named.add(value);
  return named;
}

/** The growths of a group that are seen when it is copied: those that are not hidden themselves. */
export const membersOf = (scene: Pick<Scene, 'growths'>, group: string): Growth[] =>
  scene.growths.filter((growth) => growth.group === group && growth.visible);

const wholes = new WeakMap<GrowthGroup, { of: string; growth: Growth }>();

/** A group as a growth that can be copied: hidden, with a step for each member. The same object while nothing of it changes. */
function groupGrowth(scene: Scene, group: GrowthGroup): Growth {
  const members = membersOf(scene, group.id).map(({ id, hue }) => ({ id, hue }));
  const of = JSON.stringify(members);
  const before = wholes.get(group);
  if (before?.of === of) return before.growth;
  const growth: Growth = {
    id: group.id,
    name: group.name,
    hue: group.hue,
    visible: false,
    seed: 0,
    shift: 0,
    place: {},
    group: null,
    locked: true,
    steps: members.map(({ id, hue }): Step =>
      Object.freeze({
        id: `member ${id}`,
        kind: groupMember.kind,
        name: '',
        on: true,
        params: Object.freeze({ growth: id, hue }),
      }),
    ),
  };
  wholes.set(group, { of, growth });
  return growth;
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
