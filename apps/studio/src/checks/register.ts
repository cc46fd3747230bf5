import type { ComponentType } from 'react';
import { FitCheck } from './FitCheck';
import { PaceCheck } from './PaceCheck';
import { SeamCheck } from './SeamCheck';
import { TrailCheck } from './TrailCheck';

/** The checks, in the order in which the panel shows them. */
export const CHECKS: readonly ComponentType[] = [PaceCheck, SeamCheck, FitCheck, TrailCheck];
