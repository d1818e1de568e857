import type { NewMail } from '@immeld/core/contract/mailEndpoints';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from './call';

export const useMail = () => useQuery({ queryKey: ['mail'], queryFn: () => call('getMail'), staleTime: Infinity });

/** What the stand-in mailbox of the demo got. */
export const useStandInMail = (isWanted: boolean) =>
  useQuery({ queryKey: ['mail', 'stand-in'], queryFn: () => call('listStandInMail'), enabled: isWanted });

/** Sends a file that was made. */
export function useSendMail(exportId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: NewMail) => call('sendExport', { params: { id: exportId }, body }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['mail', 'stand-in'] }),
  });
}
