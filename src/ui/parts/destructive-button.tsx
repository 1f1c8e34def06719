import { Button, type ButtonProps, useTheme } from 'react-native-paper';

/** A button for what takes something away, or lets pass what is stopped: in the dye of stops. */
export function DestructiveButton(props: ButtonProps) {
  const { colors } = useTheme();
  return <Button {...props} textColor={colors.error} />;
}
