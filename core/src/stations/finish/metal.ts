import type { ChartLine } from '../../chart/chart.ts';
import type { FinishSettings } from './settings.ts';

/** Whether a surface is metal: by its setting, or by its chart line where the setting follows that. */
export const isMetal = (metal: FinishSettings['metal'], line: ChartLine | null): boolean =>
  metal === 'line' ? line?.kind === 'metal' : metal === 'yes';
