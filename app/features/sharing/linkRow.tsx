import type { ShareLink } from '@immeld/core/contract/shareLinks';
import { useState } from 'react';
import { View } from 'react-native';
import { addressOf } from '../../api/call';
import { useShareLinkChanges } from '../../api/shareLinks';
import { copyText, NOT_COPIED } from '../../ui/clipboard';
import { localTime, whenSaid } from '../../ui/dates';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Title, Type } from '../../ui/type';
import { linkFacts } from './linkFacts';

/** A link that was made: its address, who opened it, and the way to stop it. */
export function LinkRow({ link }: { link: ShareLink }) {
  const colours = useColours();
  const { stop } = useShareLinkChanges();
  const [said, setSaid] = useState<string | null>(null);
  const [isQrShown, setQrShown] = useState(false);
  const address = `${location.origin}${link.path}`;
  const copy = () =>
    copyText(address).then(
      () => setSaid('Copied.'),
      () => setSaid(`${NOT_COPIED} Select the address above and copy it.`),
    );
  const pass = () => navigator.share({ title: link.title, url: address }).catch(() => undefined);
  const opened = link.lastOpenedAt ? whenSaid(localTime(new Date(link.lastOpenedAt))) : null;
  return (
    <View
      role="article"
      aria-label={link.title}
      style={{ borderTopWidth: 1, borderTopColor: colours.rule, paddingVertical: 12 }}
    >
      <Title level={2}>{link.title}</Title>
      <Type
        size="small"
        selectable
        tone={link.isStopped ? 'faint' : 'ink'}
        style={{ overflowWrap: 'anywhere' } as object}
      >
        {address}
      </Type>
      <Type size="tiny" tone="faint">
        {linkFacts(link, opened)}
      </Type>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
        {link.isStopped ? (
          <WordButton label="Turn on again" onPress={() => stop.mutate({ id: link.id, isStopped: false })} />
        ) : (
          <>
            <WordButton label="Copy address" isBold onPress={() => void copy()} />
            {typeof navigator.share === 'function' && <WordButton label="Share" onPress={() => void pass()} />}
            <WordButton
              label={isQrShown ? 'Hide QR code' : 'Show QR code'}
              aria-expanded={isQrShown}
              onPress={() => setQrShown(!isQrShown)}
            />
            <WordButton
              label="Turn off"
              onPress={() => stop.mutate({ id: link.id, isStopped: true })}
              style={{ marginLeft: 'auto', marginRight: 0 }}
            />
          </>
        )}
      </View>
      {said && (
        <Type role="status" size="tiny" tone="faint">
          {said}
        </Type>
      )}
      {isQrShown && !link.isStopped && (
        <img
          src={addressOf('getShareLinkQr', { params: { id: link.id } })}
          alt={`QR code with the address of ${link.title}`}
          // Dark on light in every theme: that is what cameras read.
          style={{ width: 220, height: 220, background: '#fff', borderRadius: 4 }}
        />
      )}
      {stop.error && <Failure error={stop.error} />}
    </View>
  );
}
