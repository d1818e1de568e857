import { type ReactNode, createContext, useCallback, useContext, useMemo, useState } from 'react';
import { Snackbar } from 'react-native-paper';

type Offer = { number: number; text: string; act?: () => void; label: string; isShown: boolean };
/** @param label of what can be done, "Undo" unless something else is offered */
type Show = (text: string, act?: () => void, label?: string) => void;

const UndoContext = createContext<Show>(() => undefined);
/** Shows what was done, with a way back for ten seconds. */
export const useUndoBar = (): Show => useContext(UndoContext);

const SHOWN_MS = 10_000;
const NOTHING: Offer = { number: 0, text: '', label: '', isShown: false };

export function UndoBarProvider({ children }: { children: ReactNode }) {
  const [offer, setOffer] = useState(NOTHING);
  const show = useCallback<Show>(
    (text, act, label = 'Undo') =>
      setOffer(({ number }) => ({ number: number + 1, text, label, isShown: true, ...(act ? { act } : {}) })),
    [],
  );
  const close = (number: number) => setOffer((now) => (now.number === number ? { ...now, isShown: false } : now));
  const action = useMemo(() => (offer.act ? { label: offer.label, onPress: offer.act } : undefined), [offer]);
  return (
    <UndoContext.Provider value={show}>
      {children}
      {/* There from the beginning: of a region that comes together with its words many screen readers say nothing. */}
      <div role="status">
        <Snackbar
          // Each offer has a bar of its own: one that is just fading would take the next one with it, and its ten seconds.
          key={offer.number}
          visible={offer.isShown}
          onDismiss={() => close(offer.number)}
          duration={SHOWN_MS}
          accessibilityLiveRegion="none"
          {...(action ? { action } : {})}
          // In the middle: what is around it lays nothing out.
          wrapperStyle={{ bottom: 150, left: 0, right: 0, maxWidth: 560, marginHorizontal: 'auto' }}
        >
          {offer.text}
        </Snackbar>
      </div>
    </UndoContext.Provider>
  );
}
