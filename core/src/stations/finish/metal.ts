import type { ChartLine } from '../../chart/chart.ts';
import type { FinishSettings } from './settings.ts';

/** Whether the settings, or the material of the Chart where they leave it to that, say that it is metal. */
export const saysMetal = (metal: FinishSettings['metal'], line: ChartLine | null): boolean =>
  metal === 'line' ? line?.kind === 'metal' : metal === 'yes';
