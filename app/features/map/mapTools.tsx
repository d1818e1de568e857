import { useState } from 'react';
import { View } from 'react-native';
import { Press, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import type { SheetSize } from './mapFiles';

type MapToolsProps = {
  isNarrow: boolean;
  onZoom: (isIn: boolean) => void;
  onFit: () => void;
  /** Null where there is nothing to fold. */
  onFoldAll: (() => void) | null;
  isAllOpen: boolean;
  onSaveSvg: () => void;
  onSavePng: () => void;
  onPrint: (size: SheetSize) => void;
};

/** What can be done with a map as a whole. */
export function MapTools({ isNarrow, onZoom, onFit, onFoldAll, isAllOpen, ...files }: MapToolsProps) {
  const [showsFiles, setShowsFiles] = useState(!isNarrow);
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' }}>
      <Press label="Zoom in" onPress={() => onZoom(true)} style={{ alignItems: 'center' }}>
        <Type size="large">+</Type>
      </Press>
      <Press label="Zoom out" onPress={() => onZoom(false)} style={{ alignItems: 'center', marginRight: 12 }}>
        <Type size="large">−</Type>
      </Press>
      <WordButton label="Fit to screen" onPress={onFit} />
      {onFoldAll && <WordButton label={isAllOpen ? 'Collapse all' : 'Expand all'} onPress={onFoldAll} />}
      {isNarrow && (
        <WordButton label="Save or print" aria-expanded={showsFiles} onPress={() => setShowsFiles((were) => !were)} />
      )}
      {showsFiles && (
        <>
          <WordButton label="Save as SVG" onPress={files.onSaveSvg} />
          <WordButton label="Save as PNG" onPress={files.onSavePng} />
          <WordButton label="Print on A4" onPress={() => files.onPrint('A4')} />
          <WordButton label="Print on A3" onPress={() => files.onPrint('A3')} />
        </>
      )}
    </View>
  );
}
