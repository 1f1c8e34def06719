import MaterialCommunityIcons from '@expo/vector-icons/MaterialCommunityIcons';
import type { ComponentProps } from 'react';

interface Props {
  name: unknown;
  size: number;
  color?: string | undefined;
}

/** The icons of Paper's components: they stand beside words, and are hidden from those who hear the page. */
export const PaperIcon = ({ name, size, color }: Props) => (
  <MaterialCommunityIcons
    aria-hidden
    name={name as ComponentProps<typeof MaterialCommunityIcons>['name']}
    size={size}
    color={color}
  />
);
