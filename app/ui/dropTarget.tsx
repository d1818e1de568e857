import { type ReactNode, useCallback, useEffect } from 'react';
import { View } from 'react-native';
import { useDropzone } from 'react-dropzone';
import { skippedFilesMessage, sortFiles } from '../capture/importFiles';
import { useOutbox } from '../offline/deviceContext';
import { useColours } from './theme';
import { Type } from './type';
import { useUndoBar } from './undoBar';

const EVERYWHERE = { position: 'absolute', top: 0, right: 0, bottom: 0, left: 0 } as const;

/** Sound files and whole folders can be dropped anywhere, and pasted. */
export function DropTarget({ children }: { children: ReactNode }) {
  const colours = useColours();
  const { send } = useOutbox();
  const show = useUndoBar();
  const take = useCallback(
    (files: readonly File[]) => {
      const { sounds, others } = sortFiles(files);
      const leftOut = skippedFilesMessage(others);
      const brought = sounds.length === 1 ? 'one file' : `${sounds.length} files`;
      if (leftOut) show(leftOut);
      else if (sounds.length) show(`Importing ${brought}. See the tray for progress.`);
      if (sounds.length) void send(sounds);
    },
    [send, show],
  );
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      take(files);
    };
    window.addEventListener('paste', paste);
    return () => window.removeEventListener('paste', paste);
  }, [take]);
  const { getRootProps, isDragActive } = useDropzone({ noClick: true, noKeyboard: true, onDrop: take });
  const { role: _role, tabIndex: _tabIndex, ...root } = getRootProps();
  return (
    <div {...root} style={{ display: 'flex', flexDirection: 'column', height: '100dvh', overflow: 'hidden' }}>
      {children}
      {isDragActive && (
        <View
          style={{
            ...{ ...EVERYWHERE, alignItems: 'center', justifyContent: 'center' },
            ...{ backgroundColor: colours.paper, opacity: 0.95 },
            ...{ borderWidth: 3, borderStyle: 'dashed', borderColor: colours.petrol },
          }}
        >
          <Type size="large" face="text">
            Drop to import
          </Type>
        </View>
      )}
    </div>
  );
}
