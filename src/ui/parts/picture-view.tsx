import { useEffect, useRef } from 'react';
import { PixelRatio } from 'react-native';
import { player, type View } from '@state/player';
import { colours } from '../theme/tokens';

interface Props {
  view: View;
  label: string;
  /** Size on screen, in layout pixels. */
  width: number;
  height: number;
}

/** Sharper than this is not seen on a preview and costs time. */
const MAX_RATIO = 2;

/** A live picture of the player: the master, or the canvas as it will be. */
export function PictureView({ view, label, width, height }: Props) {
  const element = useRef<HTMLCanvasElement>(null);
  const ratio = Math.min(MAX_RATIO, PixelRatio.get());
  const pixels = {
    width: Math.max(1, Math.round(width * ratio)),
    height: Math.max(1, Math.round(height * ratio)),
  };
  const { width: across, height: down } = pixels;
  useEffect(
    () =>
      player.mountView(view, { width: across, height: down }, (picture) => {
        element.current?.getContext('2d', { alpha: false })?.drawImage(picture, 0, 0, across, down);
      }),
    [view, across, down],
  );
  return (
    <canvas
      ref={element}
      role="img"
      aria-label={label}
      width={across}
      height={down}
      style={{ width, height, display: 'block', background: colours.hairline }}
    />
  );
}
