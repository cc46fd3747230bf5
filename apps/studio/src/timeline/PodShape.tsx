import { memo } from 'react';
import { podOutline } from './pod';

interface Props {
  /** One entry a frame, NaN where it is not measured yet. */
  shares: ArrayLike<number>;
  width: number;
  height: number;
  hue: string;
  opacity: number;
  testId?: string;
}

/** How much of a growth has grown at each frame, as a band; a broken line where that is not known yet. */
export const PodShape = memo(function PodShape({ shares, width, height, hue, opacity, testId }: Props) {
  const { known, unknown } = podOutline(shares, width, height);
  return (
    <>
      <path d={known} fill={hue} opacity={opacity} data-testid={testId} />
      {unknown && <path d={unknown} fill="none" stroke={hue} strokeDasharray="2 4" opacity={opacity * 0.7} />}
    </>
  );
});
