import type { StandInMail } from '@immeld/core/contract/mailEndpoints';
import { useState } from 'react';
import { View } from 'react-native';
import { useMail, useSendMail, useStandInMail } from '../../api/mail';
import { localTime, sizeName, whenSaid } from '../../ui/dates';
import { Field } from '../../ui/field';
import { Failure } from '../../ui/notice';
import { PencilBox } from '../../ui/pencil';
import { FrameButton, WordButton } from '../../ui/press';
import { Type } from '../../ui/type';
import { addressesIn } from './exportNames';
import { useClosable } from '../../ui/useClosable';

/** A file by mail, where the server sends mail. */
export function MailIt({ id, fileName, sizeBytes }: { id: string; fileName: string; sizeBytes: number }) {
  const { data } = useMail();
  const [isOpen, setOpen] = useClosable(false);
  if (!data?.isPossible) return null;
  if (!isOpen) return <WordButton label="Send by email" onPress={() => setOpen(true)} />;
  if (sizeBytes > data.largestBytes) {
    return (
      <Type role="alert" tone="rowan">
        {`The file is larger than ${sizeName(data.largestBytes)}, too large for an email. Share it by link instead.`}
      </Type>
    );
  }
  return <MailForm id={id} fileName={fileName} isStandIn={data.isStandIn} onClose={() => setOpen(false)} />;
}

type MailFormProps = { id: string; fileName: string; isStandIn: boolean; onClose: () => void };

function MailForm({ id, fileName, isStandIn, onClose }: MailFormProps) {
  const send = useSendMail(id);
  const [to, setTo] = useState('');
  const [subject, setSubject] = useState(fileName.replace(/\.\w+$/, ''));
  const [text, setText] = useState('');
  const people = addressesIn(to);
  const refused = send.data ? (send.variables?.to ?? []).filter((one) => !send.data.sentTo.includes(one)) : [];
  return (
    <PencilBox isInk style={{ width: '100%', gap: 8 }}>
      {isStandIn && <Type tone="ochre">This is the demo’s stand-in: a simulated mailbox. No email is delivered.</Type>}
      <Field
        label="To (separate several addresses with commas)"
        value={to}
        onChangeText={setTo}
        inputMode="email"
        autoCapitalize="none"
        autoComplete="email"
        maxLength={2000}
      />
      <Field label="Subject" value={subject} onChangeText={setSubject} maxLength={200} />
      <Field label="Message" value={text} onChangeText={setText} multiline maxLength={5000} />
      {send.error && <Failure error={send.error} />}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 16 }}>
        <FrameButton
          label="Send email"
          isMain
          disabled={people.length === 0 || subject.trim() === '' || send.isPending}
          onPress={() => send.mutate({ to: people, subject, text })}
        />
        <WordButton label="Close" onPress={onClose} />
      </View>
      {send.data && (
        <Type role="status">
          {isStandIn
            ? `The stand-in mailbox accepted it for ${send.data.sentTo.join(', ')}.`
            : `Sent to ${send.data.sentTo.join(', ')}.`}
        </Type>
      )}
      {send.data && refused.length > 0 && (
        <Type
          role="alert"
          tone="rowan"
        >{`Not sent to ${refused.join(', ')}: the mail server rejected these addresses.`}</Type>
      )}
      {send.data && isStandIn && <StandInMails />}
    </PencilBox>
  );
}

/** What arrived in the stand-in, as somebody would see it. */
function StandInMails() {
  const { data } = useStandInMail(true);
  return (
    <View role="region" aria-label="Stand-in mailbox" style={{ gap: 6 }}>
      {data?.items.map((mail) => (
        <StandInRow key={mail.id} mail={mail} />
      ))}
    </View>
  );
}

const StandInRow = ({ mail: { receivedAt, to, subject, text, files } }: { mail: StandInMail }) => (
  <View role="article" aria-label={subject}>
    <Type isBold>{subject}</Type>
    <Type size="tiny" tone="faint">
      {`To ${to.join(', ')}, ${whenSaid(localTime(new Date(receivedAt)))}`}
    </Type>
    {text.trim() !== '' && <Type>{text.trim()}</Type>}
    <Type size="tiny" tone="faint">
      {files.map((f) => `${f.name}, ${sizeName(f.sizeBytes)}`).join(' · ')}
    </Type>
  </View>
);
