import type { LanguageModelChange, ModelLine } from '@immeld/core/contract/languageModel';
import type { Sheet, Template } from '@immeld/core/contract/templates';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { answerTo, call } from './call';

export const useLanguageModel = () =>
  useQuery({ queryKey: ['settings', 'language-model'], queryFn: () => call('getLanguageModel') });

export function useLanguageModelChanges() {
  const client = useQueryClient();
  return {
    change: useMutation({
      mutationFn: (body: LanguageModelChange) => call('changeLanguageModel', { body }),
      onSuccess: (model) => client.setQueryData(['settings', 'language-model'], model),
    }),
    trial: useMutation({ mutationFn: () => call('tryLanguageModel', { body: {} }) }),
  };
}

/** What would be sent for a write-up, asked for only when it is to be shown. */
export const useModelRequest = (recordingId: string, template: Template | null) =>
  useQuery({
    queryKey: ['sheets', 'model-request', recordingId, JSON.stringify(template)],
    queryFn: () => call('describeModelRequest', { params: { id: recordingId }, body: { template: template! } }),
    enabled: template !== null,
  });

/**
 * Has the language model make a write-up.
 * @param onText what it has written so far
 * @param signal stops it; nothing is kept then
 * @returns the write-up, with the reason where it is not the model's
 */
export async function writtenByModel(
  recordingId: string,
  template: Template,
  onText: (text: string) => void,
  signal: AbortSignal,
): Promise<{ sheet: Sheet; problem: string | null }> {
  const answer = await answerTo('makeModelSheet', { params: { id: recordingId }, body: { template }, signal });
  const reader = answer.body!.pipeThrough(new TextDecoderStream()).getReader();
  let waiting = '';
  let written = '';
  for (;;) {
    const { value, done } = await reader.read();
    const lines = (waiting + (value ?? '')).split('\n');
    waiting = lines.pop() ?? '';
    for (const line of lines.filter(Boolean)) {
      const { text, sheet, problem } = JSON.parse(line) as ModelLine;
      if (text) onText((written += text));
      if (sheet) return { sheet, problem: problem ?? null };
    }
    if (done) throw new Error('The server’s answer broke off. Try again.');
  }
}
