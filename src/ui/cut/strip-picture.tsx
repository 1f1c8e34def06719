import { Image, StyleSheet } from 'react-native';
import type { Source } from '@core/master/source';
import { STRIP } from '@core/pass/pass';
import { compareRates } from '@core/time/frame-rate';
import { type Tile, useStills, useStrip } from '@state/picture';
import { useJob } from '../job/job-context';
import { STRIP_HEIGHT } from './strip-height';

/** A small picture of a frame: cut out of a sheet, or a still of its own by its address. */
type Picture = Tile | string | undefined;

const NONE: number[] = [];

/**
 * Small pictures of frames: out of the pass's sheets, or stills where there are none.
 * @param frames the same array while the same are wanted. @param apart how many frames lie between two of them.
 * @param make whether stills are made where there is nothing else.
 */
export function useStripPictures(
  source: Source,
  frames: readonly number[],
  apart: number,
  make = true,
): Record<number, Picture> {
  const tiles = useStrip(source, frames, apart);
  const master = useJob().masters.find((master) => master.id === source.id);
  const repaired =
    master !== undefined &&
    (master.rotation !== source.rotation ||
      master.flip !== source.flip ||
      master.picture.width !== source.picture.width ||
      compareRates(master.rate, source.rate) !== 0);
  // Until the pass is through, stills stand in for its sheets, which show the file as it is; so they do for repairs.
  const missing = repaired || Object.keys(tiles).length === 0;
  const stills = useStills(source, missing && make ? frames : NONE, STRIP_HEIGHT);
  return missing ? stills : tiles;
}

/** The middle of a small picture, as wide as its place on a strip. */
export function StripPicture({
  picture,
  width,
  height,
}: {
  picture: Picture;
  width: number;
  height: number;
}) {
  if (picture === undefined) return null;
  if (typeof picture === 'string') return <Image source={{ uri: picture }} style={styles.still} />;
  const scale = Math.max(height / picture.height, width / picture.width);
  const left = -picture.x * scale - (picture.width * scale - width) / 2;
  const top = -picture.y * scale - (picture.height * scale - height) / 2;
  return (
    <Image
      source={{ uri: picture.sheet }}
      style={[
        styles.sheet,
        {
          ...{ left, top },
          ...{ width: picture.width * STRIP.across * scale, height: picture.height * STRIP.down * scale },
        },
      ]}
      resizeMode="stretch"
    />
  );
}

const styles = StyleSheet.create({
  still: { width: '100%', height: '100%' },
  sheet: { position: 'absolute' },
});
