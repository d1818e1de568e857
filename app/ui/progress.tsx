import { View } from 'react-native';
import { useColours } from './theme';

/** How much is done, 0 to 1; null while that is not known. Paper's own bar claims the height around it on the web. */
export function Progress({ label, share, height = 4 }: { label: string; share: number | null; height?: number }) {
  const colours = useColours();
  return (
    <View
      role="progressbar"
      aria-label={label}
      {...(share === null
        ? {}
        : { 'aria-valuemin': 0, 'aria-valuemax': 100, 'aria-valuenow': Math.round(share * 100) })}
      style={{ height, backgroundColor: colours.rule, marginVertical: 3 }}
    >
      <View style={{ height, width: `${(share ?? 0) * 100}%`, backgroundColor: colours.petrol }} />
    </View>
  );
}
