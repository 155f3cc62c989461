import {
  COAT_OUTPUTS,
  COAT_PARTS,
  type Coat,
  type CoatOutput,
  type CoatPart,
  newItem,
  type PartName,
  type ValueName,
} from '@zesty-tile/core';
import { create } from 'zustand';
import { useBench } from '../../bench/state.ts';

/** The coat that is open to be changed. */
export const useCoats = create<{ open: string | null }>(() => ({ open: null }));

export const stackNow = (): Coat[] => useBench.getState().recipe.stations.coats.stack;

const put = (stack: Coat[], gesture: string) =>
  useBench.getState().setDials('coats', { stack }, gesture && `coats ${gesture}`);

/** Changes one coat; `gesture` names what moves it, where it goes on moving. */
export function changeCoat(id: string, change: (coat: Coat) => Coat, gesture = ''): void {
  put(
    stackNow().map((coat) => (coat.id === id ? change(coat) : coat)),
    gesture && `${id} ${gesture}`,
  );
}

export const changePart = (id: string, at: number, part: CoatPart, gesture = ''): void =>
  changeCoat(
    id,
    (coat) => ({ ...coat, parts: coat.parts.map((one, k) => (k === at ? part : one)) }),
    gesture && `part ${at} ${gesture}`,
  );

export const changeOutput = (id: string, at: number, output: CoatOutput, gesture = ''): void =>
  changeCoat(
    id,
    (coat) => ({ ...coat, outputs: coat.outputs.map((one, k) => (k === at ? output : one)) }),
    gesture && `output ${at} ${gesture}`,
  );

/** An id that no coat has yet. */
function freeId(): string {
  const taken = new Set(stackNow().map(({ id }) => id));
  let k = taken.size + 1;
  while (taken.has(`coat-${k}`)) k++;
  return `coat-${k}`;
}

/** Adds a coat on top of all, opened. */
export function addCoat(made: Omit<Coat, 'id'>): void {
  const coat = { ...made, id: freeId() };
  put([...stackNow(), coat], '');
  useCoats.setState({ open: coat.id });
}

/** Puts a copy of a coat above it, opened. */
export function duplicateCoat(id: string): void {
  const stack = stackNow();
  const at = stack.findIndex((coat) => coat.id === id);
  const copy = { ...stack[at], id: freeId(), name: `${stack[at].name}, copy`.slice(0, 60) };
  put([...stack.slice(0, at + 1), copy, ...stack.slice(at + 1)], '');
  useCoats.setState({ open: copy.id });
}

export function removeCoat(id: string): void {
  put(
    stackNow().filter((coat) => coat.id !== id),
    '',
  );
  if (useCoats.getState().open === id) useCoats.setState({ open: null });
}

/** Moves a coat by so many places towards the top. */
export function moveCoat(id: string, by: number): void {
  const stack = stackNow();
  const from = stack.findIndex((coat) => coat.id === id);
  const to = Math.min(stack.length - 1, Math.max(0, from + by));
  if (to === from) return;
  const rest = stack.filter((coat) => coat.id !== id);
  put([...rest.slice(0, to), stack[from], ...rest.slice(to)], '');
}

export const partOf = (by: PartName, changes: Partial<CoatPart> = {}): CoatPart =>
  ({ ...newItem(COAT_PARTS, by), ...changes }) as CoatPart;

export const outputOf = (by: ValueName, changes: Partial<CoatOutput> = {}): CoatOutput =>
  ({ ...newItem(COAT_OUTPUTS, by), ...changes }) as CoatOutput;
