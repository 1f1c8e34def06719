import { useEffect, useState } from 'react';
import type { Canvas } from '@core/layout/canvas';
import type { Encoding } from '@core/rate/encoding';
import { type EncoderAbilities, SERVER_ABILITIES } from '@core/rate/server-abilities';
import { browserAbilities } from '@media/export/abilities';
import { canRender } from './render-server';
import { findPresentMasters } from './render-sources';

/** Finds what an encoder can make of a canvas; null while that is being found out. */
export function useAbilities(
  { width, height, rate }: Canvas,
  maker: Encoding['maker'],
): EncoderAbilities | null {
  const [found, setFound] = useState<EncoderAbilities | null>(null);
  const { num, den } = rate;
  useEffect(() => {
    let current = true;
    browserAbilities({ width, height }, { num, den })
      .then((abilities) => {
        if (current) setFound(abilities);
      })
      .catch((error: unknown) => console.error('what can be encoded is not known', error));
    return () => {
      current = false;
    };
  }, [width, height, num, den]);
  return maker === 'server' ? SERVER_ABILITIES : found;
}

/** The server that makes files: whether it can, and which masters it has of this browser; asked whenever `when` changes. */
export function useRenderServer(when: unknown): { able: boolean; masters: readonly string[] } {
  const [known, setKnown] = useState<{ able: boolean; masters: readonly string[] }>({
    able: false,
    masters: [],
  });
  useEffect(() => {
    let current = true;
    const look = async () => {
      const able = await canRender();
      const masters = able ? await findPresentMasters().catch(() => []) : [];
      if (current) setKnown({ able, masters });
    };
    void look();
    return () => {
      current = false;
    };
  }, [when]);
  return known;
}
