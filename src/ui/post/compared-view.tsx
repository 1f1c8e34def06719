import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from 'react-native-paper';
import { bitsLabel, bytesLabel } from '@core/figures/figures';
import { type Comparison, isReshaped, type DispatchedPost } from '@core/posting/post-order';
import type { Trouble } from '@core/trouble/trouble';
import { comparedPictures } from '@state/posting';
import { SideBySide } from '../parts/side-by-side';
import { Notice, TroubleNotice } from '../parts/notice';
import { Body, Soft } from '../parts/words';
import { space } from '../theme/tokens';

/** Bytes, and what they come to a second where the length is known. */
const amount = (bytes: number, seconds: number | undefined): string =>
  seconds === undefined ? bytesLabel(bytes) : `${bytesLabel(bytes)} (${bitsLabel((8 * bytes) / seconds)})`;

/** Comparison of what a viewer gets with what was sent. */
export function ComparedView({ post, compared }: { post: DispatchedPost; compared: Comparison }) {
  const { width, height, bytes, seconds, ssim, worst } = compared;
  const [pictures, setPictures] = useState<{ sent: Blob; viewed: Blob } | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const look = async () => {
    const found = await comparedPictures(post.id, worst.frame);
    setTrouble('trouble' in found ? found.trouble : null);
    if ('sent' in found) setPictures(found);
  };
  return (
    <View style={styles.all}>
      <Body>
        {`A viewer gets ${width}×${height} in ${amount(bytes, seconds)}; you sent ${amount(post.bytes, seconds)}. `}
        {`Likeness (SSIM) ${ssim.toFixed(3)}; least in second ${worst.second + 1}, ${worst.ssim.toFixed(3)}.`}
      </Body>
      {isReshaped(compared) && compared.sent && (
        <Notice standing="warn" title="The outlet shows another shape">
          {`${compared.sent.width}×${compared.sent.height} was sent: its edges are cut off, or bars were added. Choose a canvas of the size that the outlet takes.`}
        </Notice>
      )}
      {pictures ? (
        <SideBySide
          label="Least similar frame"
          size={compared}
          left={{ label: 'As sent', picture: pictures.sent }}
          right={{ label: 'As a viewer gets it', picture: pictures.viewed }}
        />
      ) : (
        <Button style={styles.left} icon="compare" onPress={() => void look()}>
          See the worst frame
        </Button>
      )}
      {trouble && <TroubleNotice trouble={trouble} />}
      {post.sha256 !== null && <Soft selectable>{`SHA-256 of the file: ${post.sha256}`}</Soft>}
    </View>
  );
}

const styles = StyleSheet.create({ all: { gap: space.s }, left: { alignSelf: 'flex-start' } });
