import Svg, { Path } from 'react-native-svg';

export type PlaceName = 'day' | 'tray' | 'shelves' | 'todos';

/** Our own four signs: a line with hours, a tray, a shelf with books, ticked lines. */
const PATHS: Record<PlaceName, string> = {
  day: 'M5 3v18M5 7h5M5 12h12M5 17h8',
  tray: 'M3 13h5l2 3h4l2-3h5M3 13v7h18v-7M12 3v7',
  shelves: 'M3 11h18M3 20h18M6 11V5h3v6M11 11V4h3v7M7 20v-5h3v5M13 20v-6h4v6',
  todos: 'M4 5h5v5H4zM12 7.5h8M4 14h5v5H4zM12 16.5h8',
};

export function PlaceIcon({ place, colour }: { place: PlaceName; colour: string }) {
  return (
    <Svg width={24} height={24} viewBox="0 0 24 24" aria-hidden>
      <Path d={PATHS[place]} stroke={colour} strokeWidth={1.6} fill="none" strokeLinejoin="round" />
    </Svg>
  );
}

/** Three levels that can be moved. */
export function SettingsIcon({ colour }: { colour: string }) {
  return (
    <Svg width={24} height={24} viewBox="0 0 24 24" aria-hidden>
      <Path
        d="M4 6h9M17 6h3M15 4v4M4 12h3M11 12h9M9 10v4M4 18h10M18 18h2M16 16v4"
        stroke={colour}
        strokeWidth={1.6}
        fill="none"
      />
    </Svg>
  );
}
