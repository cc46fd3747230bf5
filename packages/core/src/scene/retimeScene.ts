import { isBrushed, type Stroke } from '../geometry/maskStroke';
import { Problem } from '../problem';
import type { ParamSpec } from '../steps/declare';
import { stepOf } from '../steps/index';
import { LIMITS } from './limits';
import { type Driven, isFormula, isTrack, isVaried, type Params, type ParamValue, type Scene } from './schema';

/**
 * A scene at another frame rate, at the same pace: keys, range, markers, delays, staggers and formulas keep their seconds
 * after the first frame, which keeps its number. The range is rounded to whole frames.
 * @param fps frames per second, within the limits of scenes
 * @throws Problem where a formula would become longer than formulas may be
 */
export function retimeScene(scene: Scene, fps: number): Scene {
  const [first, last] = scene.range;
  const ratio = fps / scene.fps;
  const frameAt = (frame: number): number => first + (frame - first) * ratio;
  const whole = (frame: number): number => Math.round(frameAt(frame));

  /** A formula reads the frame, the last one and the rate as they were. */
  const formulaAt = (formula: string, factor: number): string => {
    const then: Record<string, string> = {
      frame: `(${first} + (frame - ${first}) * ${scene.fps} / ${fps})`,
      last: String(last),
      fps: String(scene.fps),
    };
    const text = formula.replace(/(?<![\w.])(?:frame|last|fps)(?![\w.(])/g, (name) => then[name]);
    const scaled = factor === 1 ? text : `(${text}) * ${fps} / ${scene.fps}`;
    if (scaled.length > LIMITS.formula)
      throw new Problem(
        'A formula is too long to be timed anew.',
        `Shorten it, or change the frames per second and keep the keys' frames: ${formula.slice(0, 60)}`,
      );
    return scaled;
  };
  const drivenAt = (value: Driven, factor: number): Driven => {
    if (isFormula(value)) return { formula: formulaAt(value.formula, factor) };
    if (!isTrack(value)) return value * factor;
    const keys = value.keys.map((key) => ({ ...key, frame: frameAt(key.frame), value: key.value * factor }));
    return { ...value, keys };
  };
  const valueAt = (value: ParamValue, spec: ParamSpec | undefined): ParamValue => {
    const factor = spec?.type === 'number' && spec.unit === 'frames' ? ratio : 1;
    if (isVaried(value))
      return { base: drivenAt(value.base, factor), vary: { ...value.vary, amount: value.vary.amount * factor } };
    if (typeof value === 'number' || isTrack(value) || isFormula(value)) return drivenAt(value, factor);
    if (spec?.type === 'strokes' && Array.isArray(value))
      return (value as Stroke[]).map((stroke) =>
        isBrushed(stroke) ? { ...stroke, frame: frameAt(stroke.frame) } : stroke,
      ) as ParamValue;
    return value;
  };
  const paramsAt = (params: Params, specs: Readonly<Record<string, ParamSpec>> = {}): Params =>
    Object.fromEntries(Object.entries(params).map(([name, value]) => [name, valueAt(value, specs[name])]));

  return {
    ...scene,
    fps,
    range: [first, Math.max(first + 1, whole(last + 1) - 1)],
    markers: scene.markers.map((marker) => ({ ...marker, frame: whole(marker.frame) })),
    groups: scene.groups.map((group) => ({ ...group, shift: group.shift * ratio })),
    growths: scene.growths.map((growth) => ({
      ...growth,
      shift: growth.shift * ratio,
      place: paramsAt(growth.place),
      steps: growth.steps.map((step) => ({ ...step, params: paramsAt(step.params, stepOf(step.kind)?.params) })),
    })),
    guides: scene.guides.map((guide) => ({ ...guide, params: paramsAt(guide.params) })),
    light: paramsAt(scene.light),
    backdrop: paramsAt(scene.backdrop),
    lens: paramsAt(scene.lens),
    camera: paramsAt(scene.camera),
  };
}
