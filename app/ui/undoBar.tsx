import { type ReactNode, createContext, useCallback, useContext, useMemo, useState } from 'react';
import { Snackbar } from 'react-native-paper';

type Offer = { text: string; undo?: () => void };
type Show = (text: string, undo?: () => void) => void;

const UndoContext = createContext<Show>(() => undefined);
/** Shows what was done, with a way back for ten seconds. */
export const useUndoBar = (): Show => useContext(UndoContext);

const SHOWN_MS = 10_000;

export function UndoBarProvider({ children }: { children: ReactNode }) {
  const [offer, setOffer] = useState<Offer | null>(null);
  const show = useCallback<Show>((text, undo) => setOffer({ text, ...(undo ? { undo } : {}) }), []);
  const close = () => setOffer(null);
  const action = useMemo(() => (offer?.undo ? { label: 'Undo', onPress: offer.undo } : undefined), [offer]);
  return (
    <UndoContext.Provider value={show}>
      {children}
      <Snackbar
        visible={offer !== null}
        onDismiss={close}
        duration={SHOWN_MS}
        {...(action ? { action } : {})}
        wrapperStyle={{ bottom: 150, maxWidth: 560, alignSelf: 'center' }}
      >
        {offer?.text ?? ''}
      </Snackbar>
    </UndoContext.Provider>
  );
}
