import { useState } from 'react';
import { copyText, NOT_COPIED } from './clipboard';
import { WordButton } from './press';
import { Type } from './type';

/** Copies a text that is there, and says so in its own place. */
export function CopyButton({ label, text }: { label: string; text: string }) {
  // Other words are copied anew.
  const [copied, setCopied] = useState<{ text: string; isDone: boolean } | null>(null);
  const now = copied?.text === text ? copied : null;
  const copy = () =>
    copyText(text).then(
      () => setCopied({ text, isDone: true }),
      () => setCopied({ text, isDone: false }),
    );
  return (
    <>
      <WordButton label={now?.isDone ? 'Copied' : label} onPress={() => void copy()} />
      {now && !now.isDone && (
        <Type role="alert" size="tiny" tone="rowan">
          {NOT_COPIED}
        </Type>
      )}
    </>
  );
}
