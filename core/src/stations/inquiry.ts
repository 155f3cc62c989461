import type { WorkContext } from '../team/context.ts';
import type { Frame } from '../tile/frame.ts';

/** What an inquiry may ask of the evaluation it is made in; everything at the working size. */
export interface InquiryScene<Settings, Input, Output> {
  frame: Frame;
  /** The recipe's settings of the inquiry's station. */
  settings: Settings;
  /** What the station reads. */
  input(): Promise<Input>;
  /** What the station makes. */
  output(): Promise<Output>;
  context(): Promise<WorkContext>;
}

/**
 * A question about one station beside the evaluation, such as which ways of joining there are: declared by the station,
 * answered by the engine. Nothing is told where `Told` is never.
 */
export interface Inquiry<Asked, Told, Found> {
  /** Name of the station. */
  station: string;
  /** `tell` is called with each partial answer as it is found. */
  // biome-ignore lint/suspicious/noExplicitAny: the engine gives every inquiry the scene of its own station
  answer(scene: InquiryScene<any, any, any>, asked: Asked, tell: (told: Told) => void): Promise<Found>;
}
