import { baseOf, declarationOf, isTrack, type Track } from '@uvrex/core';
import { titleOf } from '@/state/actions/stepActions';
import type { Holder } from '@/state/document/document';
import type { KeyAddress } from '@/state/document/view';

/** An animated value of a growth, or of the scene itself. */
export interface TrackRow {
  growth: string;
  step: string;
  param: string;
  /** For people: step and parameter. */
  label: string;
  track: Track;
  shift: number;
}

/** All animated values of a growth or of the scene, in the order of what owns them and their parameters. */
export function tracksOf(growth: Holder): TrackRow[] {
  return growth.steps.flatMap((step) => {
    const params = declarationOf(step.kind)?.params ?? {};
    return Object.entries(params).flatMap(([param, spec]): TrackRow[] => {
      const track = baseOf(step.params[param]);
      if (!isTrack(track)) return [];
      const group = spec.type === 'number' && spec.group ? `${spec.group} ` : '';
      return [
        {
          growth: growth.id,
          step: step.id,
          param,
          label: `${titleOf(step)}, ${group}${spec.label}`,
          track,
          shift: growth.shift,
        },
      ];
    });
  });
}

export const sameKey = (a: KeyAddress, b: KeyAddress): boolean =>
  a.frame === b.frame && a.param === b.param && a.step === b.step && a.growth === b.growth;

export const addressOf = ({ growth, step, param }: TrackRow, frame: number): KeyAddress => ({
  growth,
  step,
  param,
  frame,
});
