import {
  COAT_GROUP_SETTINGS,
  type Coat,
  type CoatChannel,
  type CoatGroup,
  type CoatOutput,
  type CoatPart,
  defaultsOf,
  newOutput,
  type PaintStroke,
  type RampStop,
  type SettingsOf,
  withCoatsAdded,
} from '@zesty-tile/core';
import { create } from 'zustand';
import { useBench } from '../../bench/state.ts';

interface CoatsState {
  /** The coat or group that is open to be changed, by its id. */
  open: string | null;
  /** What is shown by itself over the Floor: the mask of a coat, or what it puts into a channel. */
  alone: { id: string; what: 'mask' | CoatChannel } | null;
  /** Handles on the Floor go to lines that divide the tile, and to each other. */
  snaps: boolean;
  /** Which painted part of the open coat or group the brush is for, and what it does. */
  brush: { part: number; erase: boolean } | null;
  /** A ramp that was copied, to be put into another. */
  ramp: RampStop[] | null;
}

export const useCoats = create<CoatsState>(() => ({
  open: null,
  alone: null,
  snaps: true,
  brush: null,
  ramp: null,
}));

/** Opens a coat or a group, or closes all; what was in hand for another is put away. */
export const openCoat = (open: string | null): void => useCoats.setState({ open, alone: null, brush: null });

/** Forgets what was open of a tile that is closed. */
export const closeCoats = (): void => openCoat(null);

const settingsNow = () => useBench.getState().recipe.stations.coats;
export const stackNow = (): Coat[] => settingsNow().stack;
const groupsNow = (): CoatGroup[] => settingsNow().groups;

const put = (values: { stack?: Coat[]; groups?: CoatGroup[] }, gesture = '') =>
  useBench.getState().setDials('coats', values, gesture && `coats ${gesture}`);

/** A coat or a group, either of which has a mask. */
export interface Owner {
  kind: 'coat' | 'group';
  id: string;
}

const changed = <T extends { id: string }>(all: readonly T[], id: string, change: (one: T) => T): T[] =>
  all.map((one) => (one.id === id ? change(one) : one));

/** Changes one coat; `gesture` names what moves it, where it goes on moving. */
export const changeCoat = (id: string, change: (coat: Coat) => Coat, gesture = ''): void =>
  put({ stack: changed(stackNow(), id, change) }, gesture && `${id} ${gesture}`);

/** Changes one group in the same way. */
export const changeGroup = (id: string, change: (group: CoatGroup) => CoatGroup, gesture = ''): void =>
  put({ groups: changed(groupsNow(), id, change) }, gesture && `group ${id} ${gesture}`);

/** Changes the parts of a mask. */
export function changeParts(
  { kind, id }: Owner,
  change: (parts: CoatPart[]) => CoatPart[],
  gesture = '',
): void {
  if (kind === 'coat') changeCoat(id, (coat) => ({ ...coat, parts: change(coat.parts) }), gesture);
  else changeGroup(id, (group) => ({ ...group, parts: change(group.parts) }), gesture);
}

export const changePart = (owner: Owner, at: number, part: CoatPart, gesture = ''): void =>
  changeParts(
    owner,
    (parts) => parts.map((one, k) => (k === at ? part : one)),
    gesture && `part ${at} ${gesture}`,
  );

/** Adds a stroke to the painted part that the brush is for. */
export function addStroke(owner: Owner, stroke: PaintStroke): void {
  const { brush } = useCoats.getState();
  if (!brush) return;
  changeParts(owner, (parts) =>
    parts.map((part, k) =>
      k === brush.part && part.by === 'strokes' ? { ...part, strokes: [...part.strokes, stroke] } : part,
    ),
  );
}

/** Channels into which a coat puts what the strokes of one part of its mask carry. */
export const paintedChannels = ({ outputs }: Coat, at: number): CoatChannel[] =>
  outputs.flatMap((one) => (one.by === 'painted' && one.part === at + 1 ? [one.channel] : []));

/** Puts what the strokes of a part of the mask carry into a channel of the coat, unless it is put in already. */
export const putPainted = (id: string, at: number, channel: CoatChannel): void =>
  changeCoat(id, (coat) =>
    paintedChannels(coat, at).includes(channel)
      ? coat
      : { ...coat, outputs: [...coat.outputs, newOutput('painted', { channel, part: at + 1 })] },
  );

export const changeOutput = (id: string, at: number, output: CoatOutput, gesture = ''): void =>
  changeCoat(
    id,
    (coat) => ({ ...coat, outputs: coat.outputs.map((one, k) => (k === at ? output : one)) }),
    gesture && `output ${at} ${gesture}`,
  );

/** An id that nothing of a list has yet. */
function freeId(of: 'coat' | 'group', all: readonly { id: string }[]): string {
  let k = all.length + 1;
  while (all.some(({ id }) => id === `${of}-${k}`)) k++;
  return `${of}-${k}`;
}

/** Adds a coat on top of all, opened. */
export function addCoat(made: Omit<Coat, 'id'>): void {
  const coat = { ...made, id: freeId('coat', stackNow()) };
  put({ stack: [...stackNow(), coat] });
  openCoat(coat.id);
  // A coat that is painted by hand selects the brush at once.
  const part = coat.parts.findIndex((one) => one.by === 'strokes');
  if (part >= 0) useCoats.setState({ brush: { part, erase: false } });
}

/** Puts a copy of a coat above it, opened. */
export function duplicateCoat(id: string): void {
  const stack = stackNow();
  const at = stack.findIndex((coat) => coat.id === id);
  const copy = { ...stack[at], id: freeId('coat', stack), name: `${stack[at].name}, copy`.slice(0, 60) };
  put({ stack: [...stack.slice(0, at + 1), copy, ...stack.slice(at + 1)] });
  openCoat(copy.id);
}

export function removeCoat(id: string): void {
  const { open, alone } = useCoats.getState();
  put({ stack: stackNow().filter((coat) => coat.id !== id) });
  if (open === id) openCoat(null);
  else if (alone?.id === id) useCoats.setState({ alone: null });
}

/** The stack with one coat at another place; between two coats of one group it belongs to that group. */
export function moved(stack: readonly Coat[], from: number, to: number): Coat[] {
  const coat = stack[from];
  const rest = stack.filter((_one, k) => k !== from);
  const [below, above] = [rest[to - 1], rest[to]];
  const isBeside = [below, above].some((one) => one?.group === coat.group);
  const group = below && above && below.group === above.group ? below.group : isBeside ? coat.group : '';
  return [...rest.slice(0, to), { ...coat, group }, ...rest.slice(to)];
}

/** Moves a coat to a place of the stack, from the bottom. */
export function moveTo(id: string, place: number): void {
  const stack = stackNow();
  const from = stack.findIndex((coat) => coat.id === id);
  const to = Math.min(stack.length - 1, Math.max(0, place));
  if (from >= 0 && to !== from) put({ stack: moved(stack, from, to) });
}

/** Moves a coat by so many places towards the top. */
export const moveCoat = (id: string, by: number): void =>
  moveTo(id, stackNow().findIndex((coat) => coat.id === id) + by);

/** Puts a coat into a new group of its own, opened. */
export function groupCoat(id: string): void {
  const groups = groupsNow();
  const group = {
    ...(defaultsOf(COAT_GROUP_SETTINGS as SettingsOf) as unknown as CoatGroup),
    id: freeId('group', groups),
    name: `Group ${groups.length + 1}`,
    within: stackNow().find((coat) => coat.id === id)?.group ?? '',
  };
  put({
    groups: [...groups, group],
    stack: changed(stackNow(), id, (coat) => ({ ...coat, group: group.id })),
  });
  openCoat(group.id);
}

/** Puts a coat into a group, next to those it has; into none where that is empty. */
export function joinGroup(id: string, group: string): void {
  const stack = stackNow();
  const coat = { ...stack.find((one) => one.id === id)!, group };
  const rest = stack.filter((one) => one.id !== id);
  const top = rest.findLastIndex(
    (one) => one.group === (group || stack.find((one2) => one2.id === id)?.group),
  );
  const at = top < 0 ? stack.findIndex((one) => one.id === id) : top + 1;
  put({ stack: [...rest.slice(0, at), coat, ...rest.slice(at)] });
}

/** Takes a group away; its coats stay, in the group that it was in. */
export function removeGroup(id: string): void {
  const within = groupsNow().find((group) => group.id === id)?.within ?? '';
  put({
    groups: groupsNow()
      .filter((group) => group.id !== id)
      .map((group) => (group.within === id ? { ...group, within } : group)),
    stack: stackNow().map((coat) => (coat.group === id ? { ...coat, group: within } : coat)),
  });
  openCoat(null);
}

/** Puts other coats in the place of those there are, as one step of this name. */
export function putCoats(stack: Coat[], step: string): void {
  const { recipe, replaceRecipe } = useBench.getState();
  const { coats } = recipe.stations;
  replaceRecipe({ ...recipe, stations: { ...recipe.stations, coats: { ...coats, stack } } }, step);
}

/** Puts saved coats on top of those there are, as one step. */
export function addStack(stack: readonly Coat[], groups: readonly CoatGroup[]): void {
  const { recipe, replaceRecipe } = useBench.getState();
  replaceRecipe(withCoatsAdded(recipe, { stack, groups }), 'Saved coats added');
  openCoat(null);
}
