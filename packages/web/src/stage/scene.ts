import { type ControlAction } from '@heuristor/contracts';
import { type ComponentType } from 'react';

export type SceneValues = Record<string, number>;
export type Act = (control: ControlAction) => void;

export interface DrawingProps {
  values: SceneValues;
  act: Act;
}

/** A button that does what a hand would do. */
export interface SceneAction {
  label: string;
  does: (values: SceneValues) => ControlAction[];
}

/** How an apparatus is drawn on the Stage. Adding one: a file with such an object, and its line in the registry. */
export interface Scene {
  /** Name under which the stand-in announces its apparatus. */
  apparatus: string;
  Drawing: ComponentType<DrawingProps>;
  actions: readonly SceneAction[];
  /** Whether something can be held in the drawing, and let go. */
  canHold: boolean;
}

/** A button for one thing that a hand does at once. */
export const does = (label: string, key: string): SceneAction => ({
  label,
  does: () => [{ action: 'do', key }],
});
