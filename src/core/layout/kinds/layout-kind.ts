import type { z } from 'zod';
import type { Size } from '../../picture/size';
import type { Pane } from '../pane';

/** A setting of a layout as a person sees it; `Settings` is the type of what it changes. */
export type LayoutField<Settings> =
  | {
      type: 'choice';
      label: string;
      value: string;
      options: readonly { value: string; label: string; settings: Settings }[];
    }
  | {
      type: 'number';
      label: string;
      unit: string;
      value: number;
      min: number;
      max: number;
      withValue(value: number): Settings;
    }
  /** A step further; null where it is at its end. Steps with the same `joins` right after each other are one for undo. */
  | {
      type: 'step';
      icon: string;
      label: string;
      words: string;
      joins?: string;
      settings: Settings | null;
    }
  | { type: 'colour'; label: string; colour: string; isChosen: boolean; settings: Settings };

/** A way to divide a canvas: all that the rest of the program knows of it. */
export interface LayoutKindDescriptor<Settings extends object> {
  /** Its name as people see it. */
  label: string;
  /** Of its settings; null for a kind that has none. What is not stored of them is as in `plain`. */
  schema: z.ZodObject | null;
  /** Default settings, and those of jobs that store less: a value that has shipped stays. */
  plain: Settings;
  /** Its panes, in drawing order. @param size even. */
  panes(settings: Settings, size: Size): Pane[];
  /** Lines across the canvas where panes meet, which hands and keys move. */
  dividers?: {
    /** From above, 0…1 of the canvas's height. */
    places(settings: Settings): number[];
    /** Moves a line, as far as that goes. */
    move(settings: Settings, index: number, to: number): Settings;
  };
  /** Finds the colour of the canvas where no pane lies, as sRGB; black without it. */
  ground?(settings: Settings): string;
  /** Makes the fields of its settings, in their order. */
  fields?(settings: Settings): LayoutField<Settings>[];
}

/** Declares a kind of layout; the type of its settings is that of `plain`. */
export const layoutKind = <Settings extends object>(
  descriptor: LayoutKindDescriptor<Settings>,
): LayoutKindDescriptor<Settings> => descriptor;

/** A number's least and most. */
export type Bounds = readonly [min: number, max: number];
