import { USUAL_SETTINGS } from '@immeld/core/contract/settings';
import { Redirect, useRouter } from 'expo-router';
import { useEffect, useMemo, useRef } from 'react';
import { ScrollView, View } from 'react-native';
import { ConsentCard } from '../features/now/consentCard';
import { MarkPad } from '../features/now/markPad';
import { NowSlip, RecorderSlip } from '../features/now/nowSlip';
import { nowRows } from '../features/now/nowRows';
import { SlidesNow } from '../features/now/slidesNow';
import { PackNotice } from '../features/now/packNotice';
import { useSharedSettings } from '../api/queries';
import { isCapturing, useCaptureNow, useLiveText } from '../offline/deviceContext';
import { MixLevels } from '../features/settings/sourceSettings';
import { Page, useIsWide } from '../ui/shell';
import { READING_WIDTH, useColours } from '../ui/theme';
import { Title, Type } from '../ui/type';

/** What is being recorded now: the words as they come, and the margin for them. */
export default function NowScreen() {
  const router = useRouter();
  const colours = useColours();
  const isWide = useIsWide();
  // Without a microphone it waits here for the next one.
  const isOn = useCaptureNow((now) => isCapturing(now) || now.stage === 'starting' || now.unplugged !== null);
  const wasOn = useRef(isOn);
  const slips = useCaptureNow((now) => now.slips);
  const warning = useCaptureNow((now) => now.warning);
  const { fixed, tentative, lagMs, state } = useLiveText();
  const { listensForAsides, asideOpening, asideClosing } = useSharedSettings().data ?? USUAL_SETTINGS;
  const phrases = useMemo(
    () => (listensForAsides ? { opening: asideOpening, closing: asideClosing } : null),
    [listensForAsides, asideOpening, asideClosing],
  );
  const rows = useMemo(() => nowRows(fixed, tentative, slips, phrases), [fixed, tentative, slips, phrases]);
  const scroll = useRef<ScrollView>(null);
  const isAtEnd = useRef(true);

  const addedTo = useCaptureNow((now) => now.addedTo);
  const wentTo = useRef(addedTo);
  if (isOn) wentTo.current = addedTo;
  useEffect(() => {
    // What was added to a recording leads back to it.
    const { current: id } = wentTo;
    if (wasOn.current && !isOn) router.replace(id ? { pathname: '/recordings/[id]', params: { id } } : '/tray');
    wasOn.current = isOn;
  }, [isOn, router]);
  if (!isOn && !wasOn.current) return <Redirect href="/" />;

  const words = (
    <ScrollView
      ref={scroll}
      style={{ flex: 1 }}
      contentContainerStyle={{ paddingVertical: 10, maxWidth: READING_WIDTH, width: '100%' }}
      role="log"
      // The arrow keys scroll it.
      tabIndex={0}
      aria-label="Words so far"
      scrollEventThrottle={100}
      onScroll={({ nativeEvent: { contentOffset, contentSize, layoutMeasurement } }) => {
        isAtEnd.current = contentOffset.y + layoutMeasurement.height > contentSize.height - 80;
      }}
      onContentSizeChange={() => isAtEnd.current && scroll.current?.scrollToEnd({ animated: false })}
    >
      {rows.map((row) =>
        row.kind === 'slip' && (row.slip.kind === 'seam' || row.slip.kind === 'gap') ? (
          <RecorderSlip key={row.key} slip={row.slip} />
        ) : row.kind === 'slip' ? (
          <NowSlip key={row.key} slip={row.slip} />
        ) : row.kind === 'aside' ? (
          <View
            key={row.key}
            role="article"
            aria-label="Aside"
            style={{
              marginLeft: 20,
              marginBottom: 8,
              borderLeftWidth: 2,
              borderLeftColor: colours.heather,
              paddingLeft: 12,
            }}
          >
            <Type size="tiny" tone="heather">
              Aside
            </Type>
            <Type face="text">{row.text}</Type>
          </View>
        ) : (
          <Type key={row.key} size="body" face="text" style={{ marginBottom: 8 }}>
            {row.fixed}
            <Type size="body" face="text" tone="faint">
              {row.tentative}
            </Type>
          </Type>
        ),
      )}
      {rows.every((row) => row.kind === 'slip') && state === 'on' && (
        <Type size="body" face="text" tone="faint">
          Listening. Your words appear here.
        </Type>
      )}
      <PackNotice />
    </ScrollView>
  );
  return (
    <Page isFull={isWide}>
      <View style={{ paddingTop: 14, gap: 2 }}>
        <Title>Recording</Title>
        <Type size="tiny" tone={warning ? 'rowan' : 'faint'} role="status">
          {warning ??
            (lagMs > 8000
              ? `The text is ${Math.round(lagMs / 1000)} s behind. The audio is complete.`
              : 'Every second is saved on this device, even without a network.')}
        </Type>
      </View>
      <ConsentCard />
      <View style={{ flex: 1, minHeight: 0, flexDirection: isWide ? 'row' : 'column', gap: isWide ? 32 : 0 }}>
        {words}
        <View
          style={
            isWide
              ? { width: 340, borderLeftWidth: 1, borderLeftColor: colours.rule, paddingLeft: 24, paddingTop: 12 }
              : { borderTopWidth: 1, borderTopColor: colours.rule, paddingTop: 10 }
          }
        >
          <SlidesNow />
          <MarkPad isWide={isWide} />
          <MixLevels />
        </View>
      </View>
    </Page>
  );
}
