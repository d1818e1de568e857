import { type ReactNode, createContext, useCallback, useContext, useMemo, useState } from 'react';
import { Snackbar } from 'react-native-paper';

type Offer = { text: string; act?: () => void; label: string };
/** @param label of what can be done, "Undo" unless something else is offered */
type Show = (text: string, act?: () => void, label?: string) => void;

const UndoContext = createContext<Show>(() => undefined);
/** Shows what was done, with a way back for ten seconds. */
export const useUndoBar = (): Show => useContext(UndoContext);

const SHOWN_MS = 10_000;

export function UndoBarProvider({ children }: { children: ReactNode }) {
  const [offer, setOffer] = useState<Offer | null>(null);
  const show = useCallback<Show>((text, act, label = 'Undo') => setOffer({ text, label, ...(act ? { act } : {}) }), []);
  const close = () => setOffer(null);
  const action = useMemo(() => (offer?.act ? { label: offer.label, onPress: offer.act } : undefined), [offer]);
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
