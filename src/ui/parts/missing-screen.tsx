import type { ReactNode } from 'react';
import { Button } from 'react-native-paper';
import { Notice } from './notice';
import { Screen } from './screen';

interface Props {
  /** Heading of the page: "No such job". */
  title: string;
  /** Sentence that says what is not there. */
  what: string;
  /** Why that may be. */
  children: string;
  /** Where to go on, and what that is called. */
  onLeave: () => void;
  leaveLabel: string;
  leading?: ReactNode;
}

/** The page at an address whose thing is not there. */
export function MissingScreen({ title, what, children, onLeave, leaveLabel, leading }: Props) {
  return (
    <Screen title={title} leading={leading}>
      <Notice
        standing="stop"
        title={what}
        actions={
          <Button mode="contained" onPress={onLeave}>
            {leaveLabel}
          </Button>
        }
      >
        {children}
      </Notice>
    </Screen>
  );
}
