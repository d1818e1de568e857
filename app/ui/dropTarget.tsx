import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useDropzone } from 'react-dropzone';
import { useOutbox } from '../offline/deviceContext';
import { useColours } from './theme';
import { Type } from './type';

/** Sound files can be dropped anywhere. */
export function DropTarget({ children }: { children: ReactNode }) {
  const colours = useColours();
  const { send } = useOutbox();
  const { getRootProps, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    onDrop: (files) => void send(files),
  });
  const { role: _role, tabIndex: _tabIndex, ...root } = getRootProps();
  return (
    <div {...root} style={{ display: 'flex', flexDirection: 'column', height: '100dvh', overflow: 'hidden' }}>
      {children}
      {isDragActive && (
        <View
          style={{
            ...{
              position: 'absolute',
              top: 0,
              right: 0,
              bottom: 0,
              left: 0,
              alignItems: 'center',
              justifyContent: 'center',
            },
            ...{
              backgroundColor: colours.paper,
              opacity: 0.95,
              borderWidth: 3,
              borderStyle: 'dashed',
              borderColor: colours.petrol,
            },
          }}
        >
          <Type size="large" face="text">
            Let go to bring it in
          </Type>
        </View>
      )}
    </div>
  );
}
