import type { ReactNode } from 'react';
import { useWindowDimensions } from 'react-native';
import { WIDE } from '../theme/tokens';
import { Screen } from '../parts/screen';
import { BackTool, HistoryTools } from './header-tools';

interface Props {
  title: string;
  subtitle?: string;
  tray?: ReactNode;
  children: ReactNode;
}

/** A page of one step of a job. On a wide screen the sheet at the left is the way back. */
export function JobPage({ title, subtitle, tray, children }: Props) {
  const wide = useWindowDimensions().width >= WIDE;
  return (
    <Screen
      title={title}
      {...(subtitle === undefined ? {} : { subtitle })}
      leading={wide ? undefined : <BackTool to="sheet" />}
      trailing={<HistoryTools />}
      tray={tray}
    >
      {children}
    </Screen>
  );
}
