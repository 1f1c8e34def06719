import { FAMILIES } from '@core/words/families';
import type { TextStyle } from '@core/words/text-style';
import { textStyles } from '@state/words';
import { NamedList } from '../parts/named-list';

const describeStyle = ({ family, weight, plate, outline, shadow }: TextStyle): string =>
  [
    family in FAMILIES ? FAMILIES[family as keyof typeof FAMILIES].label : 'A font of your own',
    weight >= 700 ? 'bold' : '',
    plate ? 'plate' : '',
    outline ? 'outline' : '',
    shadow ? 'shadow' : '',
  ]
    .filter(Boolean)
    .join(', ');

/** Looks under names, to be used again in any job, and as a file. */
export function StyleList({
  style,
  onTake,
}: {
  /** Style to be kept under a name; null while nothing is worked on. */
  style: TextStyle | null;
  onTake: (style: TextStyle) => void;
}) {
  return (
    <NamedList
      store={textStyles}
      one="style"
      many="styles"
      detail={(named) => describeStyle(named.style)}
      take={{ label: 'Use', act: (named) => onTake(named.style) }}
      onSave={style && ((name) => textStyles.save({ name, style }))}
    />
  );
}
