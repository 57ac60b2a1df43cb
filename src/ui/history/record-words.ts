import type { RecordKind } from '@/contracts/history';

export const RECORD_WORDS: Readonly<Record<RecordKind, string>> = {
  confirmed: 'confirmed',
  'put-back': 'put back, to be confirmed',
  happened: 'happened',
  'daily-check': 'daily check',
  result: 'job cut',
};
