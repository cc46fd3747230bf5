import type { Form, Points } from '../../geometry/form';

/** Adds the points that a step made to what is there. Points that carry copies already have done what they were for: they go. */
export async function startWithPoints(form: Form, points: Points): Promise<Form> {
  if (!form.points || form.seats) return { ...form, points };
  const { joinPoints } = await import('../../geometry/joinPoints');
  return { ...form, points: joinPoints(form.points, points) };
}
