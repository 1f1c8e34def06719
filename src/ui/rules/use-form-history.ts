import { useEffect, useRef, useState } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';

/** Changes that follow each other within this time are undone together, in milliseconds. */
const JOIN_WITHIN = 600;
const MAX_STEPS = 100;

/** Undo of what is entered in a form that is not saved yet. */
export function useFormHistory<Values extends FieldValues>(form: UseFormReturn<Values>) {
  const [past, setPast] = useState<Values[]>([]);
  const last = useRef<{ values: Values; at: number }>({ values: form.getValues(), at: 0 });
  const undoing = useRef(false);
  useEffect(() => {
    const listening = form.watch(() => {
      const { values, at } = last.current;
      const now = Date.now();
      last.current = { values: structuredClone(form.getValues()), at: now };
      if (undoing.current || now - at < JOIN_WITHIN) return;
      setPast((steps) => [...steps, values].slice(-MAX_STEPS));
    });
    return () => listening.unsubscribe();
  }, [form]);
  const undo = () => {
    const values = past.at(-1);
    if (!values) return;
    undoing.current = true;
    form.reset(structuredClone(values), { keepDefaultValues: true });
    void form.trigger();
    last.current = { values, at: 0 };
    undoing.current = false;
    setPast((steps) => steps.slice(0, -1));
  };
  return { undo, canUndo: past.length > 0 };
}
