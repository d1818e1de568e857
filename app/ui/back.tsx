import { type Href, useRouter } from 'expo-router';
import type { ReactNode } from 'react';
import { Press } from './press';
import type { Size } from './theme';
import { Type } from './type';

type BackProps = {
  /** Where it leads when the page was opened by its address, with nothing behind it. */
  home: Href;
  size?: Size;
  /** What lies behind, if it has a name to show. */
  children?: ReactNode;
};

/** The way back to where one came from. */
export function Back({ home, size = 'small', children }: BackProps) {
  const router = useRouter();
  return (
    <Press
      label="Back"
      role="link"
      onPress={() => (router.canGoBack() ? router.back() : router.navigate(home))}
      style={{ alignSelf: 'flex-start' }}
    >
      <Type size={size} tone="faint">
        ←{children && <> {children}</>}
      </Type>
    </Press>
  );
}
