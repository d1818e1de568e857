import { useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { answerTo } from '../../api/call';
import { WordButton } from '../../ui/press';
import { useColours } from '../../ui/theme';
import { Type } from '../../ui/type';
import { type OpenPdf, pdfDrawer } from './pdfDrawer';

/** The pages of a PDF in the margin, one at a time. */
export function PdfPages({ slipId, name }: { slipId: string; name: string }) {
  const colours = useColours();
  const [pdf, setPdf] = useState<OpenPdf | null>(null);
  const [page, setPage] = useState(1);
  const [problem, setProblem] = useState<string | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);

  useEffect(() => {
    let isHere = true;
    let opened: OpenPdf | null = null;
    const open = async () => {
      const answer = await answerTo('getSlipFile', { params: { id: slipId } });
      opened = await (await pdfDrawer())(await answer.arrayBuffer());
      if (isHere) setPdf(opened);
      else opened.close();
    };
    open().catch((error: unknown) => {
      const isDamaged = error instanceof Error && error.name === 'InvalidPDFException';
      if (isHere)
        setProblem(
          isDamaged
            ? 'This PDF is damaged and cannot be shown. You can still save the file.'
            : (error as Error).message,
        );
    });
    return () => {
      isHere = false;
      opened?.close();
    };
  }, [slipId]);
  useEffect(() => {
    const place = canvas.current;
    if (pdf && place) void pdf.draw(page, place, place.clientWidth).catch((e: Error) => setProblem(e.message));
  }, [pdf, page]);

  if (problem) {
    return (
      <Type size="tiny" tone="rowan" role="alert">
        {problem}
      </Type>
    );
  }
  return (
    <View>
      <canvas
        ref={canvas}
        role="img"
        aria-label={pdf ? `${name}, page ${page} of ${pdf.pages}` : `${name}, opening`}
        style={{ width: '100%', background: '#fff', border: `1px solid ${colours.rule}`, boxSizing: 'border-box' }}
      />
      {pdf && pdf.pages > 1 && (
        <View style={{ flexDirection: 'row', alignItems: 'center' }}>
          <WordButton label="Previous page" disabled={page === 1} onPress={() => setPage(page - 1)} />
          <Type size="tiny" tone="faint" role="status" style={{ marginRight: 20 }}>
            {page} of {pdf.pages}
          </Type>
          <WordButton label="Next page" disabled={page === pdf.pages} onPress={() => setPage(page + 1)} />
        </View>
      )}
    </View>
  );
}
