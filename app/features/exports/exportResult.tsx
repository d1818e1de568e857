import type { Export } from '@immeld/core/contract/exportEndpoints';
import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { addressOf, answerTo } from '../../api/call';
import { useExport, useExportChanges } from '../../api/exports';
import { sizeName } from '../../ui/dates';
import { Failure } from '../../ui/notice';
import { WordButton } from '../../ui/press';
import { Progress } from '../../ui/progress';
import { Type } from '../../ui/type';
import { MailIt } from './mailIt';

/** A file that is being made, and what can be done with it then: it is saved by itself once it is ready. */
type MadeFileProps = {
  id: string;
  /** What is said while it is being made. */
  working?: (made: Export) => string;
  /** Whether it may go by mail; an archive of everything does not. */
  isMailed?: boolean;
};

const COUNTED = ({ done, total }: Export): string =>
  total > 1 ? `${done} of ${total} files are ready.` : 'Preparing the file.';

export function ExportResult({ id, working = COUNTED, isMailed = true }: MadeFileProps) {
  const { data, error } = useExport(id);
  const { cancel } = useExportChanges();
  const saved = useRef(false);
  const address = addressOf('getExportFile', { params: { id } });
  const isReady = data?.state === 'ready';
  useEffect(() => {
    if (!isReady || saved.current) return;
    saved.current = true;
    follow(address);
  }, [isReady, address]);
  if (error) return <Failure error={error} />;
  if (!data) return null;
  return (
    <View role="status" style={{ paddingTop: 12 }}>
      {data.state === 'making' && (
        <>
          <Type>{working(data)}</Type>
          <Progress label="Progress of the export" share={data.total > 1 ? data.done / data.total : null} height={8} />
          <WordButton label="Cancel" onPress={() => cancel.mutate(id)} />
        </>
      )}
      {data.state === 'cancelled' && <Type>Export cancelled. Nothing was changed.</Type>}
      {data.state === 'failed' && (
        <Type role="alert" tone="rowan">
          {data.problem}
        </Type>
      )}
      {isReady && (
        <>
          <Type>{`“${data.fileName}” (${sizeName(data.sizeBytes ?? 0)}) is in your downloads.`}</Type>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap' }}>
            <WordButton label="Save again" onPress={() => follow(address)} />
            <SendIt id={id} fileName={data.fileName ?? 'file'} />
            {isMailed && <MailIt id={id} fileName={data.fileName ?? 'file'} sizeBytes={data.sizeBytes ?? 0} />}
          </View>
        </>
      )}
      {data.missing.map((sentence) => (
        <Type key={sentence} size="tiny" tone="faint">
          {sentence}
        </Type>
      ))}
    </View>
  );
}

/** By the sharing of the phone, where it takes files. */
function SendIt({ id, fileName }: { id: string; fileName: string }) {
  const [problem, setProblem] = useState<string | null>(null);
  if (typeof navigator.canShare !== 'function') return null;
  const send = async () => {
    setProblem(null);
    try {
      const blob = await (await answerTo('getExportFile', { params: { id } })).blob();
      const file = new File([blob], fileName, { type: blob.type });
      if (!navigator.canShare({ files: [file] })) {
        setProblem('This device cannot share files of this kind. The file is in your downloads.');
        return;
      }
      await navigator.share({ files: [file], title: fileName });
    } catch (error) {
      // Turned back from the list of programs is no failure.
      if ((error as Error).name !== 'AbortError') setProblem('The file could not be shared. It is in your downloads.');
    }
  };
  return (
    <>
      <WordButton label="Share" onPress={() => void send()} />
      {problem && (
        <Type role="alert" size="tiny" tone="rowan">
          {problem}
        </Type>
      )}
    </>
  );
}

function follow(address: string): void {
  const link = document.createElement('a');
  Object.assign(link, { href: address, download: '' });
  document.body.append(link);
  link.click();
  link.remove();
}
