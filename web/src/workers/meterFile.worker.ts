// Reads meter files away from the screen.
import { type FileContext, type FilePlan, readMeterFile, sniffFile } from '@lastmark/core/meter-file';
import { expose } from 'comlink';

const work = {
  sniff: (text: string, ports: readonly string[]) => sniffFile(text, ports),
  read: (text: string, plan: FilePlan, context: FileContext) => readMeterFile(text, plan, context),
};

export type MeterFileWork = typeof work;

expose(work);
